// The window in other words: German, complete, and words that are a third longer than English ones.
#include "app/looks/words.h"

#include <QAbstractItemView>
#include <QAbstractSpinBox>
#include <QComboBox>
#include <QLabel>
#include <QLibraryInfo>
#include <QRegularExpression>
#include <QTabBar>
#include <QToolButton>
#include <QTranslator>
#include <QXmlStreamReader>
#include <catch2/catch.hpp>
#include <mutex>
#include <set>

#include "app/looks/shipped.h"
#include "app/panels/miniatures.h"
#include "practice/scene.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

QString folder_of_words() {
    return app::shipped_folder("translations", "translations", "bright-pile_de.qm");
}

// While it lives, the program speaks so.
class Speaking {
  public:
    explicit Speaking(std::unique_ptr<QTranslator> words) : words_(std::move(words)) {
        QCoreApplication::installTranslator(words_.get());
    }
    ~Speaking() { QCoreApplication::removeTranslator(words_.get()); }
    Speaking(const Speaking&) = delete;
    Speaking& operator=(const Speaking&) = delete;

  private:
    std::unique_ptr<QTranslator> words_;
};

std::unique_ptr<QTranslator> german() {
    auto words = std::make_unique<QTranslator>();
    REQUIRE(words->load("bright-pile_de", folder_of_words()));
    return words;
}

// English with every word a third longer.
class Longer : public QTranslator {
  public:
    QString translate(const char*, const char* source, const char*, int n) const override {
        QString text = QString::fromUtf8(source);
        if (n >= 0) text.replace(QStringLiteral("(s)"), n == 1 ? QString() : QStringLiteral("s"));
        QString out;
        int letters = 0;
        for (qsizetype i = 0; i <= text.size(); ++i) {
            const bool letter = i < text.size() && text[i].isLetter() && (i == 0 || text[i - 1] != '%') &&
                                (i == 0 || text[i - 1] != '.');
            if (letter) {
                ++letters;
            } else {
                out += QString((letters + 1) / 3, QLatin1Char('n'));
                letters = 0;
            }
            if (i < text.size()) out += text[i];
        }
        return out;
    }
    bool isEmpty() const override { return false; }
};

// Hears which words are asked for, by class, and leaves them as they are.
class Hearing : public QTranslator {
  public:
    QString translate(const char* of, const char* source, const char*, int) const override {
        const std::lock_guard hold(lock_);
        heard_.insert({of, source});
        return {};
    }
    bool isEmpty() const override { return false; }
    std::set<std::pair<std::string, std::string>> heard() const {
        const std::lock_guard hold(lock_);
        return heard_;
    }

  private:
    mutable std::mutex lock_;
    mutable std::set<std::pair<std::string, std::string>> heard_;
};

// What is to be seen and has less room than its words need, or lies partly outside of what scrolls around it.
std::set<std::string> cut_words(QWidget& in) {
    std::set<std::string> out;
    constexpr int rounding = 1;
    for (QWidget* widget : in.findChildren<QWidget*>()) {
        if (!widget->isVisible() || widget->visibleRegion().isEmpty()) continue;
        QString text;
        int needed = 0;
        if (auto* label = qobject_cast<QLabel*>(widget)) {
            text = label->text();
            if (text.isEmpty() || label->sizePolicy().horizontalPolicy() == QSizePolicy::Ignored) continue;
            if (label->wordWrap()) {
                // The longest word stands alone in its line.
                for (const QString& word : text.split(QRegularExpression("\\s+")))
                    needed = std::max(needed, label->fontMetrics().horizontalAdvance(word));
                if (label->heightForWidth(label->width()) > label->height() + rounding) needed = label->width() + 1000;
            } else {
                needed = label->minimumSizeHint().width();
            }
        } else if (auto* button = qobject_cast<QAbstractButton*>(widget)) {
            text = button->text();
            if (text.isEmpty()) continue;
            needed = button->fontMetrics().size(Qt::TextShowMnemonic, text).width();
            if (qobject_cast<QCheckBox*>(button) || qobject_cast<app::Miniature*>(button))
                needed = button->sizeHint().width();
        } else if (auto* box = qobject_cast<QComboBox*>(widget)) {
            constexpr int arrow = 26;
            text = box->currentText();
            needed = box->fontMetrics().horizontalAdvance(text) + arrow;
        } else {
            continue;
        }
        bool outside = false;
        for (QWidget* around = widget->parentWidget(); around; around = around->parentWidget())
            if (auto* area = qobject_cast<QScrollArea*>(around)) {
                const int right = widget->mapTo(area->viewport(), QPoint(widget->width(), 0)).x();
                outside = right > area->viewport()->width() + rounding;
                break;
            }
        if (needed > widget->width() + rounding || outside)
            out.insert(widget->objectName().toStdString() + ": " + text.toStdString() + " (" + std::to_string(needed) +
                       " in " + std::to_string(widget->width()) + (outside ? ", outside)" : ")"));
    }
    return out;
}

// Of every step and every page of it.
std::set<std::string> cut_in_all_steps(Window& w) {
    std::set<std::string> out = cut_words(w.window);
    on_every_page(w, [&] { out.merge(cut_words(w.window)); });
    return out;
}

void check_no_word_is_cut(std::unique_ptr<QTranslator> language) {
    const Folder folder;
    write_moving(folder, 6, {320, 240}, {2, -1});
    // A name that the top bar has no room for.
    const fs::path night = folder / "Wide Meadow Moonwatch, midwinter";
    const std::vector<std::string> frames = folder.names();
    fs::create_directory(night);
    for (const std::string& name : frames) fs::rename(folder / name, night / name);
    const Speaking words(std::move(language));
    for (const QSize size : {QSize(1280, 800), QSize(1024, 700)}) {
        Window w;
        w.window.resize(size);
        let_pass();
        INFO(size.width() << " x " << size.height());
        CHECK(cut_words(w.window) == std::set<std::string>());
        w.drop({night});
        REQUIRE(wait_for([&] { return w.studio().document().open(); }));
        REQUIRE(w.settle());
        CHECK(cut_in_all_steps(w) == std::set<std::string>());
        CHECK(w.window.width() == size.width());
        CHECK(w.find<QLabel>("pile_name")->text().size() >= 5);
    }
}

}  // namespace

TEST_CASE("German is complete, and its sentences have the gaps that English has", "[window]") {
    QFile file(app::shipped_folder("no such", "translations", "bright-pile_de.ts") + "/bright-pile_de.ts");
    REQUIRE(file.open(QIODevice::ReadOnly));
    QXmlStreamReader xml(&file);
    const auto gaps = [](const QString& text) {
        std::set<QString> out;
        static const QRegularExpression gap("%(n|[1-9])");
        for (auto found = gap.globalMatch(text); found.hasNext();) out.insert(found.next().captured());
        return out;
    };
    int sentences = 0;
    QString source;
    while (!xml.atEnd()) {
        xml.readNext();
        if (!xml.isStartElement()) continue;
        if (xml.name() == u"source") source = xml.readElementText();
        if (xml.name() == u"translation") CHECK(xml.attributes().value("type").toString().toStdString() == "");
        if (xml.name() != u"translation" && xml.name() != u"numerusform") continue;
        INFO(source.toStdString());
        const QString text = xml.readElementText(QXmlStreamReader::IncludeChildElements);
        CHECK_FALSE(text.isEmpty());
        CHECK(gaps(text) == gaps(source));
        // A number and its percent sign stand apart, and on one line.
        static const QRegularExpression crowded("(\\d|%[1-9]) ?%(?![1-9])");
        CHECK_FALSE(crowded.match(text).hasMatch());
        ++sentences;
    }
    CHECK(sentences > 1800);
    // What the core says is among them.
    const Speaking words(german());
    CHECK(app::said(
              Saying("%1 is of another size than the rest. Point to the file that it was.", {std::string("a.jpg")})) ==
          "a.jpg ist anders groß als die übrigen. Auf die Datei zeigen, die es war.");
    CHECK(app::said(frames_counted(3)) == "3 Aufnahmen");
    // What the practice scenes are in a line, too.
    Window w;
    for (const practice::SceneEntry& scene : practice::scenes()) {
        const std::string name = "demo_" + std::string(scene.name);
        CHECK(w.find<QWidget>(name.c_str())->accessibleDescription().toStdString() != scene.summary);
    }
    CHECK(w.find<QWidget>("demo_quay")->accessibleDescription() == QStringLiteral("Der Fischkai, voller Leute"));
}

TEST_CASE("words are asked for by the class that they are translated for", "[window]") {
    QFile file(app::shipped_folder("no such", "translations", "bright-pile_de.ts") + "/bright-pile_de.ts");
    REQUIRE(file.open(QIODevice::ReadOnly));
    std::set<std::pair<std::string, std::string>> translated;
    std::string of;
    for (QXmlStreamReader xml(&file); !xml.atEnd(); xml.readNext()) {
        if (!xml.isStartElement()) continue;
        if (xml.name() == u"name") of = xml.readElementText().toStdString();
        if (xml.name() == u"source") translated.insert({of, xml.readElementText().toStdString()});
    }
    auto listening = std::make_unique<Hearing>();
    const Hearing& hearing = *listening;
    const Speaking words(std::move(listening));
    const Folder folder;
    write_moving(folder, 6, {320, 240}, {2, -1});
    Window w;
    w.drop({folder / "nothing.jpg"});
    REQUIRE(w.open(folder));
    w.click("knot_2");
    w.click("align_stars");
    // Without a place for words of its own, a class asks as what it is made of.
    const std::set<std::string> made_of{"QAbstractButton", "QDialog",     "QFrame",  "QLabel",  "QObject",
                                        "QPushButton",     "QScrollArea", "QSlider", "QWidget", "QThread"};
    std::set<std::pair<std::string, std::string>> amiss;
    on_every_page(w, [&] {
        for (const auto& asked : hearing.heard())
            if (made_of.count(asked.first) > 0 && translated.count(asked) == 0) amiss.insert(asked);
    });
    CHECK(amiss == std::set<std::pair<std::string, std::string>>());
    CHECK(hearing.heard().size() > 900);
    CHECK(hearing.heard().count({"bp::app::Notices", "Stop"}) == 1);
    CHECK(hearing.heard().count({"bp::app::Notices", "Take this sentence away"}) == 1);
}

TEST_CASE("words keep their first letter within a sentence where their language has it so", "[window]") {
    const Folder folder;
    write_moving(folder, 3, {320, 240}, {2, -1});
    const auto merging = [&] {
        Window w;
        REQUIRE(w.open(folder, Outcome::clear));
        return w.find<QWidget>("knot_3")->accessibleDescription().toStdString();
    };
    CHECK(app::within_sentence(app::word(StreakKind::meteor)) == "meteor");
    CHECK(merging() == "median of 3");
    const Speaking words(german());
    CHECK(app::within_sentence(app::word(StreakKind::meteor)) == "Meteor");
    CHECK(merging() == "Median aus 3");
}

TEST_CASE("no word is cut in German, on a usual window and on a small one", "[window]") {
    check_no_word_is_cut(german());
}

TEST_CASE("a copy of a frame says of which in the language of the window, however it comes", "[window]") {
    const Speaking there(german());
    const Folder folder;
    write_moving(folder, 2, {320, 240}, {2, -1});
    fs::copy_file(folder / "f1.tif", folder / "f3.tif");
    Window w;
    REQUIRE(w.open(folder));
    REQUIRE(w.pile().frames.size() == 3);
    CHECK(w.pile().frames[2].aside);
    CHECK(w.pile().frames[2].note == "eine Kopie von f1.tif");
    const Folder apart;
    fs::copy_file(folder / "f2.tif", apart / "late.tif");
    w.drop({apart / "late.tif"});
    REQUIRE(w.settle());
    REQUIRE(w.pile().frames.size() == 4);
    CHECK(w.pile().frames[3].note == "eine Kopie von f2.tif");
}

TEST_CASE("numbers are written as where the program speaks, on every page", "[window]") {
    struct Spoken {
        explicit Spoken(const QLocale& locale) { QLocale::setDefault(locale); }
        ~Spoken() { QLocale::setDefault(before); }
        Spoken(const Spoken&) = delete;
        Spoken& operator=(const Spoken&) = delete;
        QLocale before;
    };
    const Spoken there(QLocale(QLocale::German, QLocale::Germany));
    CHECK(app::number_in_words(-1234.567, 2) == "-1234,57");
    CHECK(app::figures_in_words(2.8, 3) == "2,8");
    CHECK(app::exposure_in_words(1.5).toStdString() == "1,5 s");
    CHECK(app::said(Saying("%1 was %2 s", {std::string("a 1.5.dng"), Saying::number(2.5)})) ==
          QStringLiteral("a 1.5.dng was 2,5 s"));
    const Folder folder;
    write_moving(folder, 6, {320, 240}, {2, -1});
    Window w;
    REQUIRE(w.open(folder));
    w.key(Qt::Key_3, Qt::ControlModifier);
    w.click("align_rigid");
    REQUIRE(w.settle());
    std::set<std::string> with_points;
    int with_commas = 0;
    static const QRegularExpression point("(?<![\\d.])\\d+\\.\\d+(?![\\d.])"), comma("\\d,\\d");
    const auto look_at = [&](const QString& text) {
        if (point.match(text).hasMatch()) with_points.insert(text.toStdString());
        if (comma.match(text).hasMatch()) ++with_commas;
    };
    on_every_page(w, [&] {
        for (QWidget* widget : w.window.findChildren<QWidget*>()) {
            if (!widget->isVisible()) continue;
            if (auto* label = qobject_cast<QLabel*>(widget)) look_at(label->text());
            if (auto* button = qobject_cast<QAbstractButton*>(widget)) look_at(button->text());
            if (auto* box = qobject_cast<QAbstractSpinBox*>(widget)) look_at(box->text());
            if (auto* box = qobject_cast<QComboBox*>(widget))
                for (int i = 0; i < box->count(); ++i) look_at(box->itemText(i));
            if (auto* view = qobject_cast<QAbstractItemView*>(widget); view && view->model())
                for (int row = 0; row < view->model()->rowCount(); ++row)
                    for (int column = 0; column < view->model()->columnCount(); ++column)
                        look_at(view->model()->index(row, column).data().toString());
        }
    });
    CHECK(with_points == std::set<std::string>());
    CHECK(with_commas > 5);
}

TEST_CASE("where words run from right to left the window is mirrored, and time, tone and picture are not", "[window]") {
    struct Mirrored {
        Mirrored() { QApplication::setLayoutDirection(Qt::RightToLeft); }
        ~Mirrored() { QApplication::setLayoutDirection(Qt::LeftToRight); }
    };
    const Folder folder;
    write_moving(folder, 6, {320, 240}, {2, -1});
    const Mirrored mirrored;
    Window w;
    REQUIRE(w.open(folder));
    const auto left_of = [&](const char* name) { return w.find<QWidget>(name)->mapTo(&w.window, QPoint(0, 0)).x(); };
    CHECK(left_of("step_line") > left_of("canvas"));
    CHECK(left_of("save") < left_of("open"));
    CHECK(cut_in_all_steps(w) == std::set<std::string>());
    // Time goes on as the clock does: a click at the left end is on the first frame.
    auto* rail = w.find<app::TimeRail>("time_rail");
    const int first = w.pile().frames.front().id, last = w.pile().frames.back().id;
    CHECK(rail->slat_of(first).right() < rail->slat_of(last).left());
    QTest::mouseClick(rail, Qt::LeftButton, Qt::NoModifier, rail->slat_of(last).center().toPoint());
    CHECK(w.studio().current() == last);
    w.key(Qt::Key_Left);
    CHECK(w.studio().current() == w.pile().frames[w.pile().frames.size() - 2].id);
    // More is on the right.
    w.click("knot_3");
    w.click("page_mode");
    auto* slider = w.find<QSlider>("strength");
    const int before = slider->value();
    w.tab_to("strength");
    w.key(Qt::Key_Left);
    CHECK(slider->value() < before);
    CHECK(w.settle());
}

TEST_CASE("no word is cut where words are a third longer", "[window]") {
    check_no_word_is_cut(std::make_unique<Longer>());
}
