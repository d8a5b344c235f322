#include "app/looks/words.h"

#include <QCoreApplication>
#include <QLibraryInfo>
#include <QStringList>
#include <QTranslator>
#include <algorithm>
#include <array>
#include <cmath>
#include <map>

#include "app/looks/shipped.h"
#include "base/text.h"
#include "engine/open.h"
#include "io/kinds.h"
#include "pile/outcomes.h"

namespace bp::app {
namespace {

struct Words {
    Q_DECLARE_TR_FUNCTIONS(Words)
};

}  // namespace

QString said(const Saying& saying) {
    constexpr int most_figures = 6;
    return QString::fromStdString(
        saying.in([](const std::string& key) { return QCoreApplication::translate("core", key.c_str()).toStdString(); },
                  [](double value) { return figures_in_words(value, most_figures).toStdString(); }));
}

QString said(const Failure& failure) {
    return said(failure.sentence);
}

std::vector<Frame> noted_in_words(std::vector<Frame> frames, const std::vector<Frame>& known) {
    std::map<std::string, std::string> words;
    for (const std::vector<Frame>* all : {&known, static_cast<const std::vector<Frame>*>(&frames)})
        for (const Frame& frame : *all) {
            const Saying note = copy_note(frame.file->path.filename().string());
            words.emplace(valid_utf8(note.english()), said(note).toStdString());
        }
    for (Frame& frame : frames)
        if (const auto found = words.find(frame.note); found != words.end()) frame.note = found->second;
    return frames;
}

QString within_sentence(QString words) {
    //: Not shown. "small" where words such as Lighten or Meteor begin with a small letter within a sentence; "kept"
    //: where they keep the letter they begin with.
    if (!words.isEmpty() && Words::tr("small") == QLatin1String("small")) words[0] = words[0].toLower();
    return words;
}

void speak(QCoreApplication& application, const QLocale& locale) {
    const QString folder = shipped_folder(QStringLiteral("translations"), QStringLiteral("translations"),
                                          QStringLiteral("bright-pile_en.qm"));
    const auto install = [&](const QString& name, const QString& from) {
        auto* words = new QTranslator(&application);
        if (words->load(name, from))
            QCoreApplication::installTranslator(words);
        else
            delete words;
    };
    // English is in the source; its file has the plurals, which also serve where another language lacks a sentence.
    install(QStringLiteral("bright-pile_en"), folder);
    const QString language = QLocale::languageToCode(locale.language());
    if (locale.language() == QLocale::English || locale.language() == QLocale::C) return;
    // Words of dialogs for files, of keys and of buttons are the toolkit's own.
    install(QStringLiteral("qtbase_") + language, QLibraryInfo::path(QLibraryInfo::TranslationsPath));
    install(QStringLiteral("bright-pile_") + language, folder);
}

namespace {

// Without marks between thousands: pixels are counted without them, too.
QLocale locale_of_numbers() {
    QLocale out;
    out.setNumberOptions(QLocale::OmitGroupSeparator);
    return out;
}

}  // namespace

QString number_in_words(double value, int digits) {
    return locale_of_numbers().toString(value, 'f', digits);
}

QString figures_in_words(double value, int figures) {
    return locale_of_numbers().toString(value, 'g', figures);
}

QString word(Mode mode) {
    switch (mode) {
        case Mode::lighten:
            return Words::tr("Lighten");
        case Mode::maximum:
            return Words::tr("Maximum");
        case Mode::minimum:
            return Words::tr("Minimum");
        case Mode::median:
            return Words::tr("Median");
        case Mode::mean:
            return Words::tr("Mean");
        case Mode::clipped_mean:
            return Words::tr("Clipped mean");
        case Mode::add:
            return Words::tr("Add light");
        case Mode::one:
            break;
    }
    return Words::tr("One frame");
}

QString word(TaperEnd end) {
    switch (end) {
        case TaperEnd::old_one:
            return Words::tr("Old end");
        case TaperEnd::new_one:
            return Words::tr("New end");
        case TaperEnd::both:
            return Words::tr("Both");
        case TaperEnd::none:
            break;
    }
    return Words::tr("Nowhere");
}

QString what_it_does(TaperEnd end) {
    switch (end) {
        case TaperEnd::old_one:
            return Words::tr("Where the lights were first, trails are faint, and grow to where they were last");
        case TaperEnd::new_one:
            return Words::tr("Where the lights were last, trails are faint");
        case TaperEnd::both:
            return Words::tr("Trails are faint at both ends and full between them");
        case TaperEnd::none:
            break;
    }
    return Words::tr("Trails have their full light from end to end");
}

QString what_it_does(Mode mode) {
    switch (mode) {
        case Mode::lighten:
            return Words::tr("The brightest frame wins at every pixel; each frame can have a strength of its own");
        case Mode::maximum:
            return Words::tr("The brightest value of every pixel, all frames alike");
        case Mode::minimum:
            return Words::tr("The darkest value of every pixel");
        case Mode::median:
            return Words::tr("The middle value of every pixel: what moves is gone");
        case Mode::mean:
            return Words::tr("The mean light of every pixel: less noise, and what moves turns into a veil");
        case Mode::clipped_mean:
            return Words::tr("The mean light without what stands apart: less noise, and what moves is gone");
        case Mode::add:
            return Words::tr(
                "The light of all frames together, as one long exposure would have it; what is more than white is "
                "white");
        case Mode::one:
            break;
    }
    return Words::tr("One frame as it is, for parts to lie over");
}

QString word(Model model) {
    switch (model) {
        case Model::none:
            return Words::tr("None");
        case Model::shift:
            return Words::tr("Shift");
        case Model::rigid:
            return Words::tr("Shift, turn");
        case Model::similarity:
            return Words::tr("And scale");
        case Model::perspective:
            return Words::tr("Perspective");
        case Model::flex:
            return Words::tr("Flex");
        case Model::stars:
            break;
    }
    return Words::tr("Stars");
}

QString what_it_does(Model model) {
    switch (model) {
        case Model::none:
            return Words::tr("Frames stay where they are: a firm tripod");
        case Model::shift:
            return Words::tr("Frames are moved onto the reference");
        case Model::rigid:
            return Words::tr("Frames are moved and turned onto the reference: hand-held bursts");
        case Model::similarity:
            return Words::tr(
                "Frames are moved, turned and scaled onto the reference: focus or distance changed a little");
        case Model::perspective:
            return Words::tr("Frames are moved as a flat scene seen from elsewhere");
        case Model::flex:
            return Words::tr("Bends locally and smoothly, for hand-held depth and moving air");
        case Model::stars:
            break;
    }
    return Words::tr("Frames are turned with the sky about its pole, as the lens bends it; the land moves instead");
}

QString word(Levelling kind) {
    switch (kind) {
        case Levelling::off:
            return Words::tr("Off");
        case Levelling::light:
            return Words::tr("Light");
        case Levelling::colour:
            break;
    }
    return Words::tr("And colour");
}

QString what_it_does(Levelling kind) {
    switch (kind) {
        case Levelling::off:
            return Words::tr("Frames keep the light they were taken in");
        case Levelling::light:
            return Words::tr("Every frame gets the light of the reference; what moves does not count");
        case Levelling::colour:
            break;
    }
    return Words::tr("Every frame gets the light and the colour of the reference");
}

namespace {

struct LookWords {
    double Look::*value;
    const char* name;
    const char* tip;
};

const std::array<LookWords, 13> look_words{{
    {&Look::exposure_ev, QT_TRANSLATE_NOOP("Words", "Exposure"),
     QT_TRANSLATE_NOOP("Words", "Twice as much light with every EV")},
    {&Look::contrast, QT_TRANSLATE_NOOP("Words", "Contrast"),
     QT_TRANSLATE_NOOP("Words", "Draws the tones apart about the middle, or together")},
    {&Look::floor, QT_TRANSLATE_NOOP("Words", "Floor"),
     QT_TRANSLATE_NOOP("Words", "What is darker becomes black, softly: bursts of light stay clean where they add up")},
    {&Look::deep, QT_TRANSLATE_NOOP("Words", "Deep"),
     QT_TRANSLATE_NOOP("Words", "Opens the dark tones, or deepens them")},
    {&Look::middle, QT_TRANSLATE_NOOP("Words", "Middle"),
     QT_TRANSLATE_NOOP("Words", "Makes the tones in the middle brighter or darker")},
    {&Look::bright, QT_TRANSLATE_NOOP("Words", "Bright"),
     QT_TRANSLATE_NOOP("Words", "Below nothing bright tones are held back, also what exposure lifted beyond white")},
    {&Look::peak, QT_TRANSLATE_NOOP("Words", "Peak"),
     QT_TRANSLATE_NOOP("Words", "Above nothing darker tones become white already, softly; below, white comes later")},
    {&Look::warmth, QT_TRANSLATE_NOOP("Words", "Warmth"),
     QT_TRANSLATE_NOOP("Words", "Warmer above nothing, cooler below")},
    {&Look::green_to_magenta, QT_TRANSLATE_NOOP("Words", "Green to magenta"),
     QT_TRANSLATE_NOOP("Words", "Towards magenta above nothing, towards green below")},
    {&Look::colour_strength, QT_TRANSLATE_NOOP("Words", "Colour strength"),
     QT_TRANSLATE_NOOP("Words", "Draws all colours away from grey, or towards it")},
    {&Look::pale_colours, QT_TRANSLATE_NOOP("Words", "Pale colours"),
     QT_TRANSLATE_NOOP("Words", "The same for what has little colour")},
    {&Look::hue_at, QT_TRANSLATE_NOOP("Words", "Range of hues"),
     QT_TRANSLATE_NOOP("Words", "Which colours are turned, in degrees: 0 red, 120 green, 240 blue")},
    {&Look::hue_turn, QT_TRANSLATE_NOOP("Words", "Turn of hues"),
     QT_TRANSLATE_NOOP("Words", "By how many degrees these colours are turned")},
}};

const LookWords& words_of(const LookValue& value) {
    return *std::find_if(look_words.begin(), look_words.end(),
                         [&](const LookWords& w) { return w.value == value.value; });
}

}  // namespace

QString short_word(const LookValue& value) {
    if (value.value == &Look::green_to_magenta) return Words::tr("Green");
    if (value.value == &Look::hue_at) return Words::tr("Range");
    if (value.value == &Look::hue_turn) return Words::tr("Turn");
    return word(value);
}

QString word(const LookValue& value) {
    return Words::tr(words_of(value).name);
}

QString what_it_does(const LookValue& value) {
    return Words::tr(words_of(value).tip);
}

QString look_value_in_words(const LookValue& value, double amount) {
    const bool whole = value.step >= 1;
    const QString number = number_in_words(std::abs(amount), whole ? 0 : 2);
    const QString sign = amount < 0 ? QStringLiteral("\u2212") : amount > 0 ? QStringLiteral("+") : QString();
    return whole ? sign + number : Words::tr("%1 EV").arg(sign + number);
}

QString word(Outcome outcome) {
    switch (outcome) {
        case Outcome::trails:
            return Words::tr("Trails");
        case Outcome::clear:
            return Words::tr("Clear");
        case Outcome::quiet:
            return Words::tr("Quiet");
        case Outcome::sequence:
            return Words::tr("Sequence");
        case Outcome::best_of:
            return Words::tr("Best of");
        case Outcome::shower:
            break;
    }
    return Words::tr("Shower");
}

QString what_it_does(Outcome outcome) {
    switch (outcome) {
        case Outcome::trails:
            return Words::tr("Moving lights draw lines");
        case Outcome::clear:
            return Words::tr("What moves is gone");
        case Outcome::quiet:
            return Words::tr("The same view, far less noise");
        case Outcome::sequence:
            return Words::tr("One subject in many places");
        case Outcome::best_of:
            return Words::tr("The best part of each frame");
        case Outcome::shower:
            break;
    }
    return Words::tr("Many brief lights, each from its own frame");
}

QString word(Role role) {
    switch (role) {
        case Role::dark:
            return Words::tr("Dark");
        case Role::foreground:
            return Words::tr("Foreground");
        case Role::scene:
            break;
    }
    return Words::tr("Scene");
}

QString picture_of(Outcome outcome) {
    const std::string_view name = entry_of(outcome).name;
    return QStringLiteral(":/pictures/%1.jpg").arg(QString::fromUtf8(name.data(), qsizetype(name.size())));
}

QString frames_in_words(const Pile& pile) {
    int in = 0, aside = 0, dark = 0, foreground = 0, broken = 0;
    for (const Frame& frame : pile.frames) {
        if (!usable(frame))
            ++broken;
        else if (frame.aside)
            ++aside;
        else if (frame.role == Role::dark)
            ++dark;
        else if (frame.role == Role::foreground)
            ++foreground;
        else
            ++in;
    }
    QStringList words{Words::tr("%1 in").arg(in)};
    if (aside) words << Words::tr("%1 aside").arg(aside);
    if (dark) words << Words::tr("%1 dark").arg(dark);
    if (foreground) words << Words::tr("%1 foreground").arg(foreground);
    if (broken) words << Words::tr("%1 of no use").arg(broken);
    return words.join(QStringLiteral(", "));
}

QString time_in_words(double captured) {
    const QString text = QString::fromStdString(time_text(captured));
    return text.mid(11, 8);
}

QString exposure_in_words(double seconds) {
    constexpr double long_s = 600, whole_s = 100;
    if (seconds >= long_s) return Words::tr("%1 min").arg(std::lround(seconds / 60));
    if (seconds >= whole_s) return Words::tr("%1 s").arg(std::lround(seconds));
    if (seconds >= 0.4) return Words::tr("%1 s").arg(figures_in_words(seconds, 3));
    return Words::tr("1/%1 s").arg(std::lround(1 / seconds));
}

QString word(StreakKind kind) {
    switch (kind) {
        case StreakKind::aircraft:
            return Words::tr("Aircraft");
        case StreakKind::satellite:
            return Words::tr("Satellite");
        case StreakKind::meteor:
            return Words::tr("Meteor");
    }
    return {};
}

QString duration_in_words(double seconds) {
    if (seconds < 90) return Words::tr("%1 s").arg(std::max(1L, std::lround(seconds)));
    const long minutes = std::lround(seconds / 60);
    if (minutes < 120) return Words::tr("%1 min").arg(minutes);
    if (minutes % 60 == 0 || minutes >= 24 * 60) return Words::tr("%1 h").arg(std::lround(double(minutes) / 60));
    return Words::tr("%1 h %2 min").arg(minutes / 60).arg(minutes % 60);
}

QString bytes_in_words(double bytes) {
    constexpr double megabyte = 1024.0 * 1024.0;
    constexpr double gigabyte = 1024.0 * megabyte;
    if (bytes < gigabyte) return Words::tr("%1 MB").arg(number_in_words(bytes / megabyte, 0));
    return Words::tr("%1 GB").arg(number_in_words(bytes / gigabyte, bytes < 10 * gigabyte ? 1 : 0));
}

namespace {

QString endings_of(bool clips) {
    QStringList out;
    for (const Kind& kind : kinds())
        if ((kind.way == ReadBy::clip) == clips)
            for (const QString& ending :
                 QString::fromUtf8(kind.endings.data(), qsizetype(kind.endings.size())).split(QLatin1Char(' ')))
                out << QStringLiteral("*%1").arg(ending);
    return out.join(QLatin1Char(' '));
}

}  // namespace

QString pictures_filter(bool with_piles) {
    if (with_piles)
        return Words::tr("Pictures, clips and piles (*.pile %1 %2)").arg(endings_of(false), endings_of(true));
    return Words::tr("Pictures (%1)").arg(endings_of(false));
}

QString clips_filter() {
    return Words::tr("Clips (%1)").arg(endings_of(true));
}

QString name_of_frame(const Frame& frame) {
    return QString::fromStdString(frame.file->path.filename().string());
}

QString name_of_part(const Pile& pile, const Part& part) {
    if (!part.name.empty()) return QString::fromStdString(part.name);
    const Frame* frame = find_frame(pile, part.frame);
    if (part.of == PartOf::painted && frame && !frame->note.empty()) return QString::fromStdString(frame->note);
    const int number = number_of(pile, part.frame);
    switch (part.of) {
        case PartOf::painted:
            return Words::tr("Part %1").arg(part.id);
        case PartOf::subject:
            return Words::tr("Subject %1, frame %2").arg(part.subject).arg(number);
        case PartOf::meteor:
            return Words::tr("Meteor, frame %1").arg(number);
        case PartOf::foreground:
            return Words::tr("Light, frame %1").arg(number);
    }
    return {};
}

QString word(Edge edge) {
    switch (edge) {
        case Edge::painted:
            return Words::tr("Edge as painted");
        case Edge::seam:
            return Words::tr("Least seam");
        case Edge::blended:
            return Words::tr("Blended");
    }
    return {};
}

QString word(Measure measure) {
    switch (measure) {
        case Measure::px:
            return Words::tr("Pixels");
        case Measure::mm:
            return Words::tr("Millimetres");
        case Measure::inch:
            return Words::tr("Inches");
    }
    return {};
}

QString word(Join join) {
    switch (join) {
        case Join::replace:
            return Words::tr("Lay over");
        case Join::lighter:
            return Words::tr("Lighter wins");
        case Join::darker:
            return Words::tr("Darker wins");
        case Join::add:
            return Words::tr("Add light");
    }
    return {};
}

}  // namespace bp::app
