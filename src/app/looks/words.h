// What things are called on screen, translated.
#pragma once

#include <QCoreApplication>
#include <QLocale>
#include <QString>

#include "lights/streaks.h"
#include "pile/pile.h"

namespace bp::app {

// Takes the words of a language from the files that ship with the program; English where there are none. Once, at the
// start of the program.
void speak(QCoreApplication& application, const QLocale& locale);
// What the core says, translated.
QString said(const Saying& saying);
QString said(const Failure& failure);
// Frames that have just been read, with the notes that reading left on them translated; `known`: others of their pile.
std::vector<Frame> noted_in_words(std::vector<Frame> frames, const std::vector<Frame>& known = {});
// Such a word, or the name of a control, as it is written within a sentence.
QString within_sentence(QString words);
QString word(Mode mode);
QString word(TaperEnd end);
QString what_it_does(TaperEnd end);
QString what_it_does(Mode mode);
QString word(Model model);
QString what_it_does(Model model);
QString word(Outcome outcome);
QString what_it_does(Outcome outcome);
QString word(Levelling kind);
QString what_it_does(Levelling kind);
QString word(const LookValue& value);
// Where there is little room.
QString short_word(const LookValue& value);
QString what_it_does(const LookValue& value);
QString look_value_in_words(const LookValue& value, double amount);
QString word(Role role);
QString picture_of(Outcome outcome);  // resource path
// A number with so many digits behind the point, and with at most so many figures in all, as it is written where the
// program speaks: what is shown to people goes through here, what programs read does not.
QString number_in_words(double value, int digits);
QString figures_in_words(double value, int figures);
// "48 in, 2 aside, 2 dark, 1 foreground"
QString frames_in_words(const Pile& pile);
QString time_in_words(double captured);  // "22:14:05"
QString exposure_in_words(double seconds);
QString word(StreakKind kind);
// "9 s", "2 min", "3 h 20 min"
QString duration_in_words(double seconds);
// "340 MB", "6.5 GB"
QString bytes_in_words(double bytes);
QString name_of_frame(const Frame& frame);
// As a person called it or its frame, else what it is and of which frame.
QString name_of_part(const Pile& pile, const Part& part);
QString word(Join join);
QString word(Edge edge);
QString word(Measure measure);
// For file dialogs: the kinds that can be read.
QString pictures_filter(bool with_piles = false);
QString clips_filter();

}  // namespace bp::app
