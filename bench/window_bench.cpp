// How long a person waits: the real window opens a run, from the call to what is on screen. Beside it, in the same run,
// the time that decoding the same files at 1/8 takes.
#include <QApplication>
#include <QElapsedTimer>
#include <QThread>
#include <cstdio>
#include <functional>

#include "app/main_window.h"
#include "app/theme.h"
#include "base/parallel.h"
#include "io/gather.h"
#include "io/reader.h"
#include "pile/edits.h"

namespace {

using namespace bp;
using namespace bp::app;

double ms_until(const std::function<bool()>& ready) {
    QElapsedTimer clock;
    clock.start();
    while (!ready() && clock.elapsed() < 300000) QCoreApplication::processEvents(QEventLoop::AllEvents, 2);
    return double(clock.nsecsElapsed()) / 1e6;
}

double decode_ms(const std::string& folder) {
    const auto files = gather_files({folder});
    if (!files.ok()) return 0;
    QElapsedTimer clock;
    clock.start();
    parallel_for(0, int(files.value().size()), [&](int i) { (void)read_picture(files.value()[std::size_t(i)], 3); });
    return double(clock.nsecsElapsed()) / 1e6;
}

}  // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    if (argc != 2) {
        std::fprintf(stderr, "Give a folder of frames.\n");
        return 2;
    }
    load_fonts();
    apply_theme(application, ThemeName::dusk);
    const double decode = decode_ms(argv[1]);
    MainWindow window;
    window.resize(1280, 800);
    window.show();
    QCoreApplication::processEvents();
    Studio& studio = window.studio();
    QElapsedTimer clock;
    clock.start();
    const auto now = [&] { return double(clock.nsecsElapsed()) / 1e6; };
    studio.open({QString::fromLocal8Bit(argv[1])}, Outcome::trails);
    ms_until([&] { return studio.document().open(); });
    const double listed = now();
    ms_until([&] { return !studio.thumbnail(studio.current()).isNull(); });
    const double first_frame = now();
    ms_until([&] { return !window.viewer().overview().image.isNull(); });
    const double merged = now();
    ms_until([&] { return !window.viewer().detail().image.isNull(); });
    const double fine = now();
    std::printf("%zu frames of %d x %d\n", studio.pile().frames.size(), studio.pile().size.width,
                studio.pile().size.height);
    std::printf("decode all at 1/8           %8.0f ms\n", decode);
    std::printf("frames listed               %8.0f ms  %.2f x\n", listed, listed / decode);
    std::printf("first frame seen            %8.0f ms  %.2f x\n", first_frame, first_frame / decode);
    std::printf("first merged sight          %8.0f ms  %.2f x\n", merged, merged / decode);
    std::printf("merged at screen resolution %8.0f ms  %.2f x\n", fine, fine / decode);
    for (const Mode mode : {Mode::median, Mode::mean, Mode::lighten}) {
        const long before = window.viewer().detail().serial;
        studio.document().edit(with_mode(studio.pile(), mode), QStringLiteral("mode"));
        const double sight = ms_until([&] { return window.viewer().overview().serial > before; });
        const double whole = sight + ms_until([&] { return window.viewer().detail().serial > before; });
        std::printf("mode %-8s sight %6.0f ms, at screen resolution %6.0f ms\n", entry_of(mode).name.data(), sight,
                    whole);
    }
    studio.document().close();
    return 0;
}
