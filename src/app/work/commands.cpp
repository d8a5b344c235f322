#include "app/work/commands.h"

#include <QCoreApplication>
#include <QShortcut>
#include <QStringList>
#include <QWidget>
#include <algorithm>
#include <stdexcept>
#include <vector>

namespace bp::app {
namespace {

#define SAY(text) QT_TRANSLATE_NOOP("Told", text)

const std::vector<Command>& table() {
    using K = QKeySequence;
    static const std::vector<Command> all{
        {"open", Topic::pile, Heard::everywhere, {K(Qt::CTRL | Qt::Key_O)}, SAY("Open"), SAY("Opens frames or a pile")},
        {"open_folder",
         Topic::pile,
         Heard::everywhere,
         {K(Qt::CTRL | Qt::SHIFT | Qt::Key_O)},
         SAY("Open a folder"),
         SAY("Opens all pictures in a folder")},
        {"open_like",
         Topic::pile,
         Heard::everywhere,
         {K(Qt::CTRL | Qt::SHIFT | Qt::Key_K)},
         SAY("Like a pile"),
         SAY("Opens frames with the settings of a pile that was saved: what is its own frames' alone is not taken")},
        {"save", Topic::pile, Heard::everywhere, {K(Qt::CTRL | Qt::Key_S)}, SAY("Save"), SAY("Saves the pile")},
        {"save_as",
         Topic::pile,
         Heard::everywhere,
         {K(Qt::CTRL | Qt::SHIFT | Qt::Key_S)},
         SAY("Save under a name"),
         SAY("Saves the pile under another name")},
        {"export",
         Topic::pile,
         Heard::everywhere,
         {K(Qt::CTRL | Qt::Key_E)},
         SAY("Export"),
         SAY("Opens the Export step, where format and place are chosen")},
        {"export_at_once",
         Topic::pile,
         Heard::everywhere,
         {K(Qt::CTRL | Qt::SHIFT | Qt::Key_E)},
         SAY("Export as last time"),
         SAY("Asks for a place and a name, and writes the picture as the Export step has it")},
        {"undo",
         Topic::pile,
         Heard::everywhere,
         {K(Qt::CTRL | Qt::Key_Z)},
         SAY("Undo"),
         SAY("Takes the last step back")},
        {"redo",
         Topic::pile,
         Heard::everywhere,
         {K(Qt::CTRL | Qt::SHIFT | Qt::Key_Z), K(Qt::CTRL | Qt::Key_Y)},
         SAY("Redo"),
         SAY("Does again what was taken back")},
        {"history",
         Topic::pile,
         Heard::everywhere,
         {K(Qt::CTRL | Qt::ALT | Qt::Key_Z)},
         SAY("What was done"),
         SAY("Lists the edits of this pile, to go back to one or on to it")},

        {"frame_before",
         Topic::frames,
         Heard::unless_taken,
         {K(Qt::Key_Left)},
         SAY("Frame before"),
         SAY("Flips to the frame before")},
        {"frame_after",
         Topic::frames,
         Heard::unless_taken,
         {K(Qt::Key_Right)},
         SAY("Next frame"),
         SAY("Flips to the next frame")},
        {"extend_back",
         Topic::frames,
         Heard::unless_taken,
         {K(Qt::SHIFT | Qt::Key_Left)},
         SAY("Select back"),
         SAY("Selects the frame before, too")},
        {"extend_on",
         Topic::frames,
         Heard::unless_taken,
         {K(Qt::SHIFT | Qt::Key_Right)},
         SAY("Select on"),
         SAY("Selects the next frame, too")},
        {"select_all",
         Topic::frames,
         Heard::everywhere,
         {K(Qt::CTRL | Qt::Key_A)},
         SAY("Select all"),
         SAY("Selects all frames")},
        {"invert",
         Topic::frames,
         Heard::everywhere,
         {K(Qt::CTRL | Qt::SHIFT | Qt::Key_A)},
         SAY("Select the others"),
         SAY("Selects the frames that are not selected, in place of those that are")},
        {"aside",
         Topic::frames,
         Heard::everywhere,
         {K(Qt::Key_A)},
         SAY("Set aside, take back"),
         SAY("Leaves the selected frames out of the picture without forgetting them, or lets them in again")},
        {"remove",
         Topic::frames,
         Heard::everywhere,
         {K(Qt::Key_Delete)},
         SAY("Remove"),
         SAY("Takes the selected frames out of this pile, or the chosen part or place while their list has the focus; "
             "files stay where they are")},
        {"by_time",
         Topic::frames,
         Heard::everywhere,
         {K(Qt::CTRL | Qt::ALT | Qt::Key_T)},
         SAY("Order by time"),
         SAY("Puts the frames in the order in which they were taken")},
        {"by_name",
         Topic::frames,
         Heard::everywhere,
         {K(Qt::CTRL | Qt::ALT | Qt::Key_N)},
         SAY("Order by name"),
         SAY("Puts the frames in the order of their file names")},
        {"earlier",
         Topic::frames,
         Heard::on_rail,
         {K(Qt::CTRL | Qt::Key_Left)},
         SAY("Move to the front"),
         SAY("Puts the selected frames one place nearer to the first")},
        {"later",
         Topic::frames,
         Heard::on_rail,
         {K(Qt::CTRL | Qt::Key_Right)},
         SAY("Move to the back"),
         SAY("Puts the selected frames one place nearer to the last")},
        {"first_frame", Topic::frames, Heard::on_rail, {K(Qt::Key_Home)}, SAY("First frame"), SAY("On the time rail")},
        {"last_frame", Topic::frames, Heard::on_rail, {K(Qt::Key_End)}, SAY("Last frame"), SAY("On the time rail")},
        {"ten_back",
         Topic::frames,
         Heard::on_rail,
         {K(Qt::Key_PageUp)},
         SAY("Ten frames back"),
         SAY("On the time rail")},
        {"ten_on", Topic::frames, Heard::on_rail, {K(Qt::Key_PageDown)}, SAY("Ten frames on"), SAY("On the time rail")},
        {"select_first",
         Topic::frames,
         Heard::on_rail,
         {K(Qt::SHIFT | Qt::Key_Home)},
         SAY("Select to the first"),
         SAY("On the time rail")},
        {"select_last",
         Topic::frames,
         Heard::on_rail,
         {K(Qt::SHIFT | Qt::Key_End)},
         SAY("Select to the last"),
         SAY("On the time rail")},
        {"select_ten_back",
         Topic::frames,
         Heard::on_rail,
         {K(Qt::SHIFT | Qt::Key_PageUp)},
         SAY("Select ten back"),
         SAY("On the time rail")},
        {"select_ten_on",
         Topic::frames,
         Heard::on_rail,
         {K(Qt::SHIFT | Qt::Key_PageDown)},
         SAY("Select ten on"),
         SAY("On the time rail")},
        {"rail_closer",
         Topic::frames,
         Heard::on_rail,
         {K(Qt::Key_Up)},
         SAY("Widen the time rail"),
         SAY("On the time rail")},
        {"rail_further",
         Topic::frames,
         Heard::on_rail,
         {K(Qt::Key_Down)},
         SAY("Narrow the time rail"),
         SAY("On the time rail")},

        {"view_0", Topic::views, Heard::everywhere, {K(Qt::Key_1)}, SAY("Result"), SAY("Shows the picture")},
        {"view_1", Topic::views, Heard::everywhere, {K(Qt::Key_2)}, SAY("Frame"), SAY("Shows the chosen frame alone")},
        {"view_2",
         Topic::views,
         Heard::everywhere,
         {K(Qt::Key_3)},
         SAY("Difference"),
         SAY("Shows how the chosen frame differs from another, strengthened as chosen above the picture")},
        {"view_3",
         Topic::views,
         Heard::everywhere,
         {K(Qt::Key_4)},
         SAY("Cover"),
         SAY("Shows where not every frame reaches: the fewer, the darker")},
        {"view_4",
         Topic::views,
         Heard::everywhere,
         {K(Qt::Key_5)},
         SAY("Origins"),
         SAY("Shows which frame each place comes from; a click goes to it")},
        {"flip",
         Topic::views,
         Heard::held,
         {K(Qt::Key_Space)},
         SAY("Flip"),
         SAY("While it is held: from Result to Frame and back, or the right one of two pictures alone")},
        {"before",
         Topic::views,
         Heard::held,
         {K(Qt::Key_U)},
         SAY("Before finishing"),
         SAY("While it is held: the picture as it is merged and laid over, before anything of Finish is done to it")},
        {"hold_place",
         Topic::brush,
         Heard::held,
         {K(Qt::Key_T)},
         SAY("Hold the place"),
         SAY("While it is held in Parts: the rail keeps showing the place, and a click on a frame takes it from there, "
             "a click with Shift gives it back")},
        {"proof",
         Topic::views,
         Heard::everywhere,
         {K(Qt::Key_Y)},
         SAY("As exported"),
         SAY("Shows the result in the profile of the export, with colours that it cannot hold hatched, and back")},
        {"play",
         Topic::views,
         Heard::everywhere,
         {K(Qt::Key_R)},
         SAY("Play"),
         SAY("Shows the frames one after the other")},
        {"pair",
         Topic::views,
         Heard::everywhere,
         {K(Qt::Key_D)},
         SAY("Side by side"),
         SAY("Shows two pictures behind one divider, which can be dragged")},
        {"hold",
         Topic::views,
         Heard::everywhere,
         {K(Qt::Key_H)},
         SAY("Hold this frame"),
         SAY("Keeps this frame on the right, to hold others against it; the settings of the merge where these are "
             "compared")},
        {"divider_left",
         Topic::views,
         Heard::everywhere,
         {K(Qt::Key_BracketLeft)},
         SAY("Divider left"),
         SAY("Moves the divider between two pictures to the left")},
        {"divider_right",
         Topic::views,
         Heard::everywhere,
         {K(Qt::Key_BracketRight)},
         SAY("Divider right"),
         SAY("Moves the divider between two pictures to the right")},
        {"capture",
         Topic::views,
         Heard::everywhere,
         {K(Qt::Key_I)},
         SAY("Capture data"),
         SAY("Shows how this frame was taken, and what differs across the run")},
        {"plumb",
         Topic::views,
         Heard::everywhere,
         {K(Qt::Key_L)},
         SAY("Plumb"),
         SAY("Shows what every frame has at a point of the picture: click on it, or press Enter over it")},
        {"tones",
         Topic::views,
         Heard::everywhere,
         {K(Qt::Key_G)},
         SAY("Tones"),
         SAY("Shows how much of what is seen is dark and bright, in all and by channel, or of an area that is chosen")},

        {"fit", Topic::picture, Heard::everywhere, {K(Qt::Key_F)}, SAY("Fit"), SAY("Shows all of the picture")},
        {"pixels",
         Topic::picture,
         Heard::everywhere,
         {K(Qt::Key_P)},
         SAY("Pixel by pixel"),
         SAY("Shows every pixel of the picture as one of the screen")},
        {"twice",
         Topic::picture,
         Heard::everywhere,
         {K(Qt::SHIFT | Qt::Key_P)},
         SAY("Twice as large"),
         SAY("Shows every pixel of the picture as two by two of the screen")},
        {"zoom_typed",
         Topic::picture,
         Heard::everywhere,
         {K(Qt::Key_Z)},
         SAY("Another size"),
         SAY("Opens the list of sizes, where one can be typed")},
        {"closer",
         Topic::picture,
         Heard::everywhere,
         {K(Qt::Key_Plus), K(Qt::Key_Equal)},
         SAY("Closer"),
         SAY("Shows the picture larger")},
        {"further",
         Topic::picture,
         Heard::everywhere,
         {K(Qt::Key_Minus)},
         SAY("Further"),
         SAY("Shows the picture smaller")},
        {"pan_left",
         Topic::picture,
         Heard::on_picture,
         {K(Qt::SHIFT | Qt::Key_Left)},
         SAY("Look left"),
         SAY("Moves the picture under the window")},
        {"pan_right",
         Topic::picture,
         Heard::on_picture,
         {K(Qt::SHIFT | Qt::Key_Right)},
         SAY("Look right"),
         SAY("Moves the picture under the window")},
        {"pan_up",
         Topic::picture,
         Heard::on_picture,
         {K(Qt::SHIFT | Qt::Key_Up)},
         SAY("Look up"),
         SAY("Moves the picture under the window")},
        {"pan_down",
         Topic::picture,
         Heard::on_picture,
         {K(Qt::SHIFT | Qt::Key_Down)},
         SAY("Look down"),
         SAY("Moves the picture under the window")},
        {"mark_left",
         Topic::picture,
         Heard::on_picture,
         {K(Qt::CTRL | Qt::Key_Left)},
         SAY("Mark left"),
         SAY("Moves a mark over the picture; with Shift by one pixel. Enter is the button there")},
        {"mark_right",
         Topic::picture,
         Heard::on_picture,
         {K(Qt::CTRL | Qt::Key_Right)},
         SAY("Mark right"),
         SAY("Moves a mark over the picture; with Shift by one pixel. Enter is the button there")},
        {"mark_up",
         Topic::picture,
         Heard::on_picture,
         {K(Qt::CTRL | Qt::Key_Up)},
         SAY("Mark up"),
         SAY("Moves a mark over the picture; with Shift by one pixel. Enter is the button there")},
        {"mark_down",
         Topic::picture,
         Heard::on_picture,
         {K(Qt::CTRL | Qt::Key_Down)},
         SAY("Mark down"),
         SAY("Moves a mark over the picture; with Shift by one pixel. Enter is the button there")},
        {"leave",
         Topic::picture,
         Heard::everywhere,
         {K(Qt::Key_Escape)},
         SAY("Leave"),
         SAY("Leaves a stroke, a drag, what is tried out, a tool, a field: in this order")},

        {"keep",
         Topic::brush,
         Heard::everywhere,
         {K(Qt::Key_K)},
         SAY("Keep or give back"),
         SAY("Changes what the brush does")},
        {"brush_smaller",
         Topic::brush,
         Heard::everywhere,
         {K(Qt::Key_Comma)},
         SAY("Smaller brush"),
         SAY("Makes the brush, or the mark for spots, smaller")},
        {"brush_larger",
         Topic::brush,
         Heard::everywhere,
         {K(Qt::Key_Period)},
         SAY("Larger brush"),
         SAY("Makes the brush, or the mark for spots, larger")},

        {"nudge_left",
         Topic::hand,
         Heard::by_hand,
         {K(Qt::ALT | Qt::Key_Left)},
         SAY("Left"),
         SAY("Moves the frame to the left")},
        {"nudge_right",
         Topic::hand,
         Heard::by_hand,
         {K(Qt::ALT | Qt::Key_Right)},
         SAY("Right"),
         SAY("Moves the frame to the right")},
        {"nudge_up", Topic::hand, Heard::by_hand, {K(Qt::ALT | Qt::Key_Up)}, SAY("Up"), SAY("Moves the frame up")},
        {"nudge_down",
         Topic::hand,
         Heard::by_hand,
         {K(Qt::ALT | Qt::Key_Down)},
         SAY("Down"),
         SAY("Moves the frame down")},
        {"turn_left",
         Topic::hand,
         Heard::by_hand,
         {K(Qt::ALT | Qt::Key_PageUp)},
         SAY("Turn \xe2\x88\x92"),
         SAY("Turns the frame against the clock about the pivot")},
        {"turn_right",
         Topic::hand,
         Heard::by_hand,
         {K(Qt::ALT | Qt::Key_PageDown)},
         SAY("Turn +"),
         SAY("Turns the frame with the clock about the pivot")},

        {"step_0", Topic::window, Heard::everywhere, {K(Qt::CTRL | Qt::Key_1)}, SAY("Frames"), SAY("Opens the step")},
        {"step_1", Topic::window, Heard::everywhere, {K(Qt::CTRL | Qt::Key_2)}, SAY("Even"), SAY("Opens the step")},
        {"step_2", Topic::window, Heard::everywhere, {K(Qt::CTRL | Qt::Key_3)}, SAY("Align"), SAY("Opens the step")},
        {"step_3", Topic::window, Heard::everywhere, {K(Qt::CTRL | Qt::Key_4)}, SAY("Merge"), SAY("Opens the step")},
        {"step_4", Topic::window, Heard::everywhere, {K(Qt::CTRL | Qt::Key_5)}, SAY("Parts"), SAY("Opens the step")},
        {"step_5", Topic::window, Heard::everywhere, {K(Qt::CTRL | Qt::Key_6)}, SAY("Finish"), SAY("Opens the step")},
        {"step_6", Topic::window, Heard::everywhere, {K(Qt::CTRL | Qt::Key_7)}, SAY("Export"), SAY("Opens the step")},
        {"menu",
         Topic::window,
         Heard::everywhere,
         {K(Qt::Key_F10)},
         SAY("Menu"),
         SAY("Lists all that can be done, with its keys")},
        {"full_screen",
         Topic::window,
         Heard::everywhere,
         {K(Qt::Key_F11)},
         SAY("Full screen"),
         SAY("Fills the screen with the window, and back")},
        {"hide_steps",
         Topic::window,
         Heard::everywhere,
         {K(Qt::Key_F7)},
         SAY("Steps away"),
         SAY("Takes the steps away, so that the picture has their room, or brings them back")},
        {"hide_rail",
         Topic::window,
         Heard::everywhere,
         {K(Qt::Key_F8)},
         SAY("Rail away"),
         SAY("Takes the time rail away, so that the picture has its room, or brings it back")},
        {"preferences",
         Topic::window,
         Heard::everywhere,
         {K(Qt::CTRL | Qt::Key_Comma)},
         SAY("Preferences"),
         SAY("Theme, room for memory and working files, the display, sizes")},
        {"theme",
         Topic::window,
         Heard::everywhere,
         {K(Qt::CTRL | Qt::Key_L)},
         SAY("Dusk or Noon"),
         SAY("Makes the window dark or light")},
        {"guide",
         Topic::window,
         Heard::everywhere,
         {K(Qt::Key_F1)},
         SAY("Guide"),
         SAY("Opens the guide at what is being done")},
        {"keys",
         Topic::window,
         Heard::everywhere,
         {K(Qt::CTRL | Qt::Key_F1)},
         SAY("Keys"),
         SAY("Shows what every key does")},
        {"quit", Topic::window, Heard::everywhere, {K(Qt::CTRL | Qt::Key_Q)}, SAY("Quit"), SAY("Ends the program")},
    };
    return all;
}

struct Told {
    Q_DECLARE_TR_FUNCTIONS(Told)
};

}  // namespace

QString Command::name() const {
    return Told::tr(words);
}

QString Command::what_it_does() const {
    return Told::tr(tip);
}

QString Command::keys_in_words() const {
    QStringList out;
    for (const QKeySequence& key : keys) out << key.toString(QKeySequence::NativeText);
    return out.join(Told::tr(" or "));
}

std::span<const Command> commands() {
    return table();
}

const Command& command(const char* id) {
    const auto found =
        std::find_if(table().begin(), table().end(), [id](const Command& c) { return std::string_view(c.id) == id; });
    if (found == table().end()) throw std::logic_error(std::string("no command ") + id);
    return *found;
}

QString word(Topic topic) {
    switch (topic) {
        case Topic::pile:
            return Told::tr("The pile");
        case Topic::frames:
            return Told::tr("Frames");
        case Topic::views:
            return Told::tr("Views");
        case Topic::picture:
            return Told::tr("On the picture");
        case Topic::brush:
            return Told::tr("The brush");
        case Topic::hand:
            return Told::tr("Placing by hand");
        case Topic::window:
            break;
    }
    return Told::tr("The window");
}

QString tip_of(const char* id) {
    const Command& c = command(id);
    return Told::tr("%1 (%2)").arg(c.what_it_does(), c.keys_in_words());
}

Keys::Keys(QWidget* window) : QObject(window), window_(window) {}

void Keys::tie(const char* id, std::function<void()> what, std::function<bool()> when, QWidget* on) {
    const Command& c = command(id);
    tied_[id] = {std::move(what), std::move(when)};
    if (c.heard == Heard::unless_taken || c.heard == Heard::held) return;
    const bool anywhere = c.heard == Heard::everywhere || c.heard == Heard::by_hand;
    for (const QKeySequence& key : c.keys) {
        auto* shortcut = new QShortcut(key, on ? on : window_);
        shortcut->setContext(anywhere ? Qt::WindowShortcut : Qt::WidgetShortcut);
        connect(shortcut, &QShortcut::activated, this, [this, name = std::string(id)] { go(name); });
    }
}

void Keys::go(const std::string& id) {
    if (can(id.c_str())) tied_.at(id).what();
}

bool Keys::can(const char* id) const {
    const auto found = tied_.find(id);
    return found != tied_.end() && (!found->second.when || found->second.when());
}

bool Keys::press(const QKeySequence& key) {
    for (const Command& c : commands()) {
        if (c.heard != Heard::unless_taken || !c.keys.contains(key) || !tied_.contains(c.id)) continue;
        go(c.id);
        return true;
    }
    return false;
}

bool Keys::complete() const {
    return std::all_of(table().begin(), table().end(), [this](const Command& c) { return tied_.contains(c.id); });
}

}  // namespace bp::app
