#include "app/window/guide.h"

#include <QCoreApplication>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QRegularExpression>
#include <QTextBlock>
#include <QTextList>
#include <algorithm>
#include <map>

#include "app/looks/controls.h"
#include "app/looks/shipped.h"
#include "app/looks/theme.h"

namespace bp::app {
namespace {

constexpr int guide_width = 1000, guide_height = 680;
constexpr int contents_width = 240;
constexpr int page_margin = 24;

QString folder_of_guide() {
    return shipped_folder(QStringLiteral("guide"), QStringLiteral("docs/guide"), QStringLiteral("README.md"));
}

// The folder of the chapters in the language that is spoken, in that of the guide; none of it is in English.
QString folder_of_language() {
    return QCoreApplication::translate("bp::app::Guide", "in English",
                                       "the folder of docs/guide with the chapters in your language");
}

std::optional<Chapter> read_chapter(const QString& name, const QString& language) {
    QFile file(folder_of_guide() + QLatin1Char('/') + language + QLatin1Char('/') + name);
    const bool own = file.open(QIODevice::ReadOnly);
    if (!own) file.setFileName(folder_of_guide() + QLatin1Char('/') + name);
    if (!own && !file.open(QIODevice::ReadOnly)) return std::nullopt;
    Chapter out{name, {}, QString::fromUtf8(file.readAll())};
    // Pictures are found from the folder of the guide.
    if (own) out.text.replace(QStringLiteral("](../../"), QStringLiteral("](../"));
    static const QRegularExpression heading(QStringLiteral("^# (.*)$"), QRegularExpression::MultilineOption);
    out.title = heading.match(out.text).captured(1).section(QLatin1Char(':'), 0, 0);
    return out;
}

// Markdown comes without room between paragraphs.
void give_room(QTextDocument& text) {
    constexpr double line_percent = 128;
    for (QTextBlock block = text.begin(); block.isValid(); block = block.next()) {
        QTextCursor at(block);
        QTextBlockFormat format = block.blockFormat();
        const int level = format.headingLevel();
        format.setTopMargin(level == 0 ? 0 : level == 1 ? space::small : space::large);
        format.setBottomMargin(level != 0 ? space::small : block.textList() ? space::hair : space::medium);
        // A picture is a line of its own height.
        if (!block.text().contains(QChar::ObjectReplacementCharacter))
            format.setLineHeight(line_percent, QTextBlockFormat::ProportionalHeight);
        at.setBlockFormat(format);
    }
}

}  // namespace

const std::vector<Chapter>& chapters() {
    static std::map<QString, std::vector<Chapter>> by_language;
    const QString language = folder_of_language();
    const auto known = by_language.find(language);
    if (known != by_language.end()) return known->second;
    std::vector<Chapter>& out = by_language[language];
    const auto contents = read_chapter(QStringLiteral("README.md"), language);
    if (!contents) return out;
    out.push_back(*contents);
    static const QRegularExpression link(QStringLiteral("\\]\\(([a-z-]+\\.md)\\)"));
    for (auto found = link.globalMatch(contents->text); found.hasNext();)
        if (const auto chapter = read_chapter(found.next().captured(1), language)) out.push_back(*chapter);
    return out;
}

QString file_of_picture(const QString& guide, const QString& language, const QString& named) {
    const QFileInfo english(QDir(guide).absoluteFilePath(named));
    const QFileInfo own(english.dir().filePath(language), english.fileName());
    return own.exists() ? own.filePath() : english.filePath();
}

QString chapter_of_step(int step) {
    static const QStringList files{QStringLiteral("looking.md"),  QStringLiteral("evening.md"),
                                   QStringLiteral("aligning.md"), QStringLiteral("merging.md"),
                                   QStringLiteral("parts.md"),    QStringLiteral("finishing.md"),
                                   QStringLiteral("exporting.md")};
    return step >= 0 && step < files.size() ? files[step] : QStringLiteral("README.md");
}

QVariant GuidePage::loadResource(int type, const QUrl& name) {
    if (type != QTextDocument::ImageResource) return QTextBrowser::loadResource(type, name);
    const QImage picture(file_of_picture(folder_of_guide(), folder_of_language(), name.path()));
    const int room = viewport()->width() - 2 * page_margin - space::large;
    if (picture.isNull() || picture.width() <= room) return picture;
    const double sharp = devicePixelRatioF();
    QImage out = picture.scaledToWidth(std::min(picture.width(), int(room * sharp)), Qt::SmoothTransformation);
    out.setDevicePixelRatio(double(out.width()) / room);
    return out;
}

Guide::Guide(QWidget* parent) : QDialog(parent) {
    setObjectName(QStringLiteral("guide"));
    setWindowTitle(tr("Guide"));
    resize(guide_width, guide_height);
    words_ = new QLineEdit(this);
    words_->setObjectName(QStringLiteral("guide_words"));
    words_->setPlaceholderText(tr("Find in the guide"));
    words_->setAccessibleName(tr("Find in the guide"));
    words_->setClearButtonEnabled(true);
    contents_ = new QListWidget(this);
    contents_->setObjectName(QStringLiteral("guide_contents"));
    contents_->setAccessibleName(tr("Chapters"));
    for (const Chapter& chapter : chapters()) contents_->addItem(chapter.title);
    none_ =
        quiet_label(chapters().empty() ? tr("The guide is not installed beside the program. Install Bright Pile again.")
                                       : tr("No chapter holds these words."),
                    this);
    none_->setVisible(chapters().empty());
    page_ = new GuidePage(this);
    page_->setObjectName(QStringLiteral("guide_page"));
    page_->setAccessibleName(tr("Chapter"));
    page_->setOpenLinks(false);
    page_->setFrameShape(QFrame::NoFrame);
    page_->document()->setDocumentMargin(page_margin);

    auto* side = new QVBoxLayout;
    side->setSpacing(space::small);
    side->addWidget(words_);
    side->addWidget(none_);
    side->addWidget(contents_, 1);
    auto* row = new QHBoxLayout(this);
    row->setSpacing(space::medium);
    row->addLayout(side);
    row->addWidget(page_, 1);
    words_->setFixedWidth(contents_width);
    contents_->setFixedWidth(contents_width);
    none_->setFixedWidth(contents_width);

    connect(contents_, &QListWidget::currentRowChanged, this, &Guide::show_chapter);
    connect(words_, &QLineEdit::textChanged, this, &Guide::find);
    connect(words_, &QLineEdit::returnPressed, this, &Guide::find_next);
    connect(page_, &QTextBrowser::anchorClicked, this, [this](const QUrl& to) { open_chapter(to.path()); });
    words_->setFocus();
}

void Guide::show_chapter(int row) {
    if (row < 0) return;
    page_->setMarkdown(chapters()[std::size_t(row)].text);
    page_->document()->setDocumentMargin(page_margin);
    give_room(*page_->document());
    page_->moveCursor(QTextCursor::Start);
    if (!words_->text().isEmpty()) page_->find(words_->text());
}

void Guide::open_chapter(const QString& file) {
    const auto& all = chapters();
    const auto found = std::find_if(all.begin(), all.end(), [&](const Chapter& c) { return c.file == file; });
    if (found == all.end()) return;
    words_->clear();
    contents_->setCurrentRow(int(found - all.begin()));
}

QString Guide::chapter() const {
    const int row = contents_->currentRow();
    return row < 0 ? QString() : chapters()[std::size_t(row)].file;
}

void Guide::find(const QString& words) {
    const auto& all = chapters();
    int first = -1;
    for (int i = 0; i < contents_->count(); ++i) {
        const bool holds = words.isEmpty() || all[std::size_t(i)].text.contains(words, Qt::CaseInsensitive);
        contents_->item(i)->setHidden(!holds);
        if (holds && first < 0) first = i;
    }
    none_->setVisible(first < 0);
    if (first < 0) return;
    const int now = contents_->currentRow();
    if (now >= 0 && !contents_->item(now)->isHidden())
        show_chapter(now);
    else
        contents_->setCurrentRow(first);
}

// Through the chapter that is open, then on to the next that holds the words.
void Guide::find_next() {
    if (words_->text().isEmpty() || page_->find(words_->text())) return;
    const int count = contents_->count();
    for (int k = 1; k <= count; ++k) {
        const int row = (contents_->currentRow() + k) % count;
        if (contents_->item(row)->isHidden()) continue;
        if (row == contents_->currentRow())
            show_chapter(row);
        else
            contents_->setCurrentRow(row);
        return;
    }
}

}  // namespace bp::app
