#include "app/looks/display.h"

#include <xcb/xcb.h>

#include <QGuiApplication>
#include <QScreen>
#include <QSettings>
#include <cstdlib>
#include <mutex>

#include "io/profile_file.h"

namespace bp::app {
namespace {

constexpr auto from_key = "display/from";
constexpr auto file_key = "display/file";

std::mutex display_guard;
Profile of_display;

bool change_to(const Profile& profile) {
    const std::lock_guard lock(display_guard);
    if (profile == of_display) return false;
    of_display = profile;
    return true;
}

struct Freed {
    void operator()(void* it) const { std::free(it); }
};

}  // namespace

Profile display_profile() {
    const std::lock_guard lock(display_guard);
    return of_display;
}

DisplayFrom display_from() {
    const int kept = QSettings().value(from_key, int(DisplayFrom::screen)).toInt();
    return kept >= int(DisplayFrom::srgb) && kept <= int(DisplayFrom::file) ? DisplayFrom(kept) : DisplayFrom::screen;
}

QString display_file() {
    return QSettings().value(file_key).toString();
}

Profile profile_of(const QScreen* screen) {
    const auto* x11 = qGuiApp->nativeInterface<QNativeInterface::QX11Application>();
    xcb_connection_t* connection = x11 ? x11->connection() : nullptr;
    if (!connection || !screen) return {};
    const xcb_screen_t* root = xcb_setup_roots_iterator(xcb_get_setup(connection)).data;
    // The first screen's has no number.
    const qsizetype number = QGuiApplication::screens().indexOf(screen);
    QByteArray name = "_ICC_PROFILE";
    if (number > 0) name += '_' + QByteArray::number(number);
    const std::unique_ptr<xcb_intern_atom_reply_t, Freed> atom(xcb_intern_atom_reply(
        connection, xcb_intern_atom(connection, 1, std::uint16_t(name.size()), name.constData()), nullptr));
    if (!atom || atom->atom == XCB_ATOM_NONE || !root) return {};
    constexpr std::uint32_t most = 4U << 20;  // in words of four bytes
    const std::unique_ptr<xcb_get_property_reply_t, Freed> reply(xcb_get_property_reply(
        connection, xcb_get_property(connection, 0, root->root, atom->atom, XCB_ATOM_ANY, 0, most), nullptr));
    if (!reply) return {};
    const auto* bytes = static_cast<const std::uint8_t*>(xcb_get_property_value(reply.get()));
    const Profile profile(std::vector<std::uint8_t>(bytes, bytes + xcb_get_property_value_length(reply.get())));
    return profile.fits(3) ? profile : Profile();
}

Status use_display(DisplayFrom from, const QString& file, const QScreen* screen) {
    Profile profile;
    if (from == DisplayFrom::file) {
        Result<Profile> read = read_profile(file.toStdString());
        if (!read.ok()) return read.failure();
        profile = std::move(read).value();
    } else if (from == DisplayFrom::screen) {
        profile = profile_of(screen);
    }
    QSettings().setValue(from_key, int(from));
    if (from == DisplayFrom::file) QSettings().setValue(file_key, file);
    change_to(profile);
    return Done{};
}

bool use_display_of(const QScreen* screen) {
    const DisplayFrom from = display_from();
    if (from == DisplayFrom::srgb) return change_to({});
    if (from == DisplayFrom::screen) return change_to(profile_of(screen));
    const Result<Profile> read = read_profile(display_file().toStdString());
    return change_to(read.ok() ? read.value() : Profile());
}

}  // namespace bp::app
