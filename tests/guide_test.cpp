// The guide inside the window, and what the themes promise to the eyes.
#include "app/window/guide.h"

#include <QFileInfo>
#include <QListWidget>
#include <QRegularExpression>
#include <QScrollBar>
#include <QTextBlock>
#include <QTranslator>
#include <catch2/catch.hpp>
#include <cmath>

#include "app/looks/shipped.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "pile/outcomes.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

// The guide, once its window is there.
app::Guide* guide_of(Window& w) {
    wait_for([&] {
        auto* guide = w.window.findChild<app::Guide*>();
        return guide && guide->isVisible();
    });
    return w.window.findChild<app::Guide*>();
}

// WCAG 2.1, relative luminance and contrast ratio.
double contrast(const QColor& a, const QColor& b) {
    const auto luminance = [](const QColor& c) {
        const auto light = [](double v) { return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
        return 0.2126 * light(c.redF()) + 0.7152 * light(c.greenF()) + 0.0722 * light(c.blueF());
    };
    const double one = luminance(a), other = luminance(b);
    return (std::max(one, other) + 0.05) / (std::min(one, other) + 0.05);
}

}  // namespace

TEST_CASE("F1 opens the guide at the step that is open, and it is searched", "[window]") {
    const Folder folder;
    write_moving(folder, 3, {320, 240}, {0, 0});
    Window w;
    w.key(Qt::Key_F1);
    app::Guide* guide = guide_of(w);
    REQUIRE(guide);
    CHECK(guide->chapter() == "README.md");
    let_pass();
    QTest::keyClick(w.focus(), Qt::Key_Escape);
    CHECK_FALSE(guide->isVisible());

    REQUIRE(w.open(folder));
    const std::pair<Qt::Key, const char*> steps[] = {{Qt::Key_1, "looking.md"},
                                                     {Qt::Key_3, "aligning.md"},
                                                     {Qt::Key_4, "merging.md"},
                                                     {Qt::Key_6, "finishing.md"},
                                                     {Qt::Key_7, "exporting.md"}};
    for (const auto& [key, file] : steps) {
        w.key(key, Qt::ControlModifier);
        let_pass();
        w.key(Qt::Key_F1);
        CHECK(guide_of(w)->chapter() == file);
        QTest::keyClick(guide, Qt::Key_Escape);
    }

    w.key(Qt::Key_F1);
    auto* page = guide->findChild<QTextBrowser*>("guide_page");
    auto* list = guide->findChild<QListWidget*>("guide_contents");
    auto* words = guide->findChild<QLineEdit*>("guide_words");
    REQUIRE(page);
    // Words are typed: chapters without them go, and the first place of them is marked.
    QTest::mouseClick(words, Qt::LeftButton);
    QTest::keyClicks(words, "Knit the breaks");
    int seen = 0;
    for (int i = 0; i < list->count(); ++i) seen += list->item(i)->isHidden() ? 0 : 1;
    CHECK(seen >= 2);
    CHECK(seen < list->count());
    CHECK(page->textCursor().selectedText().toLower() == "knit the breaks");
    const QString first = guide->chapter();
    for (int i = 0; i < 20 && guide->chapter() == first; ++i) QTest::keyClick(words, Qt::Key_Return);
    CHECK(guide->chapter() != first);
    CHECK(page->textCursor().selectedText().toLower() == "knit the breaks");
    words->selectAll();
    QTest::keyClicks(words, "no such words as these");
    CHECK(guide->findChild<QLabel*>() != nullptr);
    for (int i = 0; i < list->count(); ++i) CHECK(list->item(i)->isHidden());
    words->clear();
    // Chapters are reached by keys, and by the links in them.
    QTest::keyClick(words, Qt::Key_Tab);
    list->setFocus();
    QTest::keyClick(list, Qt::Key_Home);
    REQUIRE(guide->chapter() == "README.md");
    QTextCursor at(page->document());
    while (!at.atEnd() && !at.charFormat().isAnchor()) at.movePosition(QTextCursor::NextCharacter);
    page->ensureCursorVisible();
    QTest::mouseClick(page->viewport(), Qt::LeftButton, Qt::NoModifier, page->cursorRect(at).center());
    CHECK(guide->chapter() == "opening.md");
}

TEST_CASE("every link and every picture of the guide is there, as wide as its page", "[window]") {
    Window w;
    w.key(Qt::Key_F1);
    app::Guide* guide = guide_of(w);
    REQUIRE(guide);
    const auto& all = app::chapters();
    REQUIRE(all.size() == 16);
    auto* page = guide->findChild<QTextBrowser*>("guide_page");
    static const QRegularExpression link("\\]\\(([^)#]+)\\)");
    for (const app::Chapter& chapter : all) {
        INFO(chapter.file.toStdString());
        CHECK_FALSE(chapter.title.isEmpty());
        guide->open_chapter(chapter.file);
        REQUIRE(guide->chapter() == chapter.file);
        for (auto found = link.globalMatch(chapter.text); found.hasNext();) {
            const QString to = found.next().captured(1);
            INFO(to.toStdString());
            if (to.endsWith(".md")) {
                CHECK(std::any_of(all.begin(), all.end(), [&](const app::Chapter& c) { return c.file == to; }));
            } else {
                const QImage picture =
                    page->document()->resource(QTextDocument::ImageResource, QUrl(to)).value<QImage>();
                CHECK_FALSE(picture.isNull());
                CHECK(picture.width() / picture.devicePixelRatio() <= page->viewport()->width());
            }
        }
        CHECK(page->horizontalScrollBar()->maximum() == 0);
    }
}

TEST_CASE("the guide is there in German, whole, with the pictures and links of the English one", "[window]") {
    const std::vector<app::Chapter> english = app::chapters();
    QTranslator german;
    REQUIRE(german.load("bright-pile_de", app::shipped_folder("translations", "translations", "bright-pile_de.qm")));
    // Outcomes are called what the window calls them.
    const auto named_as_shown = [](const std::vector<app::Chapter>& all) {
        int named = 0;
        for (const OutcomeEntry& entry : outcomes()) {
            const QString file = QStringLiteral("outcome-%1.md").arg(QLatin1String(entry.name.data()));
            for (const app::Chapter& chapter : all)
                if (chapter.file == file && chapter.text.startsWith("# " + app::word(entry.outcome) + '\n')) ++named;
        }
        return named;
    };
    CHECK(named_as_shown(english) == 6);
    QCoreApplication::installTranslator(&german);
    const std::vector<app::Chapter> spoken = app::chapters();
    CHECK(named_as_shown(spoken) == 6);
    QCoreApplication::removeTranslator(&german);
    REQUIRE(english.size() == 16);
    REQUIRE(spoken.size() == english.size());
    // What a chapter is made of, whatever its words.
    const auto shape = [](const QString& text) {
        const auto count = [&](const char* pattern) {
            return text.count(QRegularExpression(QLatin1String(pattern), QRegularExpression::MultilineOption));
        };
        QStringList links;
        static const QRegularExpression link("\\]\\(([^)#]+)\\)");
        for (auto found = link.globalMatch(text); found.hasNext();) links << found.next().captured(1);
        links.sort();
        return std::tuple(links.join(' ').toStdString(), count("^#+ "), count("^ *(-|[0-9]+\\.) "), count("^\\|"),
                          count("^ *```"));
    };
    for (std::size_t i = 0; i < english.size(); ++i) {
        INFO(english[i].file.toStdString());
        CHECK(spoken[i].file == english[i].file);
        CHECK((spoken[i].text != english[i].text));
        CHECK(shape(spoken[i].text) == shape(english[i].text));
        // Neither is much shorter than the other: nothing was left out.
        CHECK(spoken[i].text.size() > 0.85 * english[i].text.size());
    }
}

TEST_CASE("a picture of the guide shows the window in the reader's language where there is one", "[window]") {
    const Folder folder;
    fs::create_directories(folder / "guide");
    fs::create_directories(folder / "screenshots/de");
    QImage picture(4, 3, QImage::Format_RGB32);
    picture.fill(Qt::gray);
    const auto at = [&](const char* name) { return QString::fromStdString((folder / name).string()); };
    for (const char* name : {"screenshots/align.png", "screenshots/even.png", "screenshots/de/align.png"})
        REQUIRE(picture.save(at(name)));
    const auto same = [&](const char* language, const char* named, const char* found) {
        return QFileInfo(app::file_of_picture(at("guide"), language, named)) == QFileInfo(at(found));
    };
    CHECK(same("de", "../screenshots/align.png", "screenshots/de/align.png"));
    CHECK(same("de", "../screenshots/even.png", "screenshots/even.png"));
    CHECK(same("in English", "../screenshots/align.png", "screenshots/align.png"));
}

TEST_CASE("words and marks stand out from what they lie on, in both themes", "[window]") {
    for (const app::ThemeName name : {app::ThemeName::dusk, app::ThemeName::noon}) {
        const app::Theme& t = app::theme_of(name);
        INFO((name == app::ThemeName::dusk ? "Dusk" : "Noon"));
        for (const QColor& ground : {t.ground, t.raised}) {
            for (const QColor& words : {t.text, t.quiet, t.amber, t.teal, t.coral})
                CHECK(contrast(words, ground) >= 4.5);
            CHECK(contrast(t.text, t.hover) >= 4.5);
        }
        CHECK(contrast(t.amber, t.hover) >= 4.5);
        CHECK(contrast(t.on_amber, t.amber) >= 4.5);
        CHECK(contrast(t.on_hatch, t.hatch) >= 4.5);
        for (const QColor& mark : {t.amber, t.teal, t.coral, t.quiet}) CHECK(contrast(mark, t.ground) >= 3);
    }
}
