// Stages that a frame goes through before it is placed, and frames that are taken several times.
#include <catch2/catch.hpp>
#include <cmath>
#include <fstream>
#include <sstream>

#include "engine/frame_stages.h"
#include "engine/in_step.h"
#include "engine/open.h"
#include "engine/render.h"
#include "kernels/weigh.h"
#include "pile/edits.h"
#include "pile/part_edits.h"
#include "support/fixtures.h"
#include "support/targets.h"

using namespace bp;
using test::Folder;

namespace {

constexpr std::size_t ample = std::size_t(1) << 28;

// Keeps the rows of every take, where they cover.
struct Keeping final : StepWork {
    Keeping(const Pile& of, const Rect& area, std::size_t takes) : region(area), channels(of.channels) {
        for (std::size_t k = 0; k < takes; ++k) out.emplace_back(area.size(), of.channels);
    }
    void begin(const StripPlan& given) override { plan = given; }
    void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) override {
        for (std::size_t k = 0; k < rows.size(); ++k)
            for (int i = rows[k].cover.begin * channels; i < rows[k].cover.end * channels; ++i)
                out[k].row(y - region.top)[(columns.begin - region.left) * channels + i] =
                    rows[k].narrow ? kernels::to_16(rows[k].narrow[i]) : rows[k].wide[i];
    }
    Rect region;
    int channels;
    StripPlan plan;
    std::vector<Raster16> out;
};

Keeping kept(const Pile& pile, FrameStore& store, const std::vector<Take>& takes, const Rect& region, int level = 0) {
    Keeping work(pile, region, takes.size());
    Job job;
    const Status done = bring_in_step({pile, store, takes, region, level}, job, work);
    REQUIRE(done.ok());
    return work;
}

Take softly(int frame, double radius) {
    Take out;
    out.frame = frame;
    out.softening = {radius, false};
    return out;
}

// The Gaussian of the sum over all pixels around, in the light of sRGB; the border stands for what lies beyond it.
std::uint16_t softened(const Raster16& picture, double deviation, int x, int y, int c) {
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    const int reach = int(std::ceil(3 * deviation));
    double sum = 0, weights = 0;
    for (int v = -reach; v <= reach; ++v)
        for (int u = -reach; u <= reach; ++u) {
            const double weight = std::exp(-0.5 * (u * u + v * v) / (deviation * deviation));
            sum += weight * curve.light(picture.at(std::clamp(x + u, 0, picture.width() - 1),
                                                   std::clamp(y + v, 0, picture.height() - 1), c));
            weights += weight;
        }
    return curve.sample(sum / weights);
}

// Bytes that this process has read from files so far.
long long bytes_read() {
    std::ifstream in("/proc/self/io");
    std::string name;
    long long value = 0;
    while (in >> name >> value)
        if (name == "rchar:") return value;
    return -1;
}

}  // namespace

TEST_CASE("weighing rows equals its scalar twin to the bit, on every instruction set") {
    std::vector<std::vector<float>> rows;
    std::vector<const float*> pointers;
    std::vector<float> weights;
    for (int k = 0; k < 7; ++k) {
        const Raster16 noise = test::speckle({150, 1}, 1, unsigned(k) + 40);
        rows.emplace_back();
        for (const std::uint16_t v : noise.data()) rows.back().push_back(float(v) / 65535.0F);
        weights.push_back(0.05F * float(k + 1));
    }
    for (const auto& row : rows) pointers.push_back(row.data());
    test::on_every_target([&] {
        for (const std::size_t n : {std::size_t(1), std::size_t(15), std::size_t(64), std::size_t(150)}) {
            std::vector<float> out(n + 1, -1.0F);
            kernels::weigh(pointers, weights, n, out.data());
            std::size_t wrong = out[n] != -1.0F;
            for (std::size_t i = 0; i < n; ++i) {
                volatile float sum = 0;
                for (std::size_t k = 0; k < rows.size(); ++k) {
                    volatile float product = weights[k] * rows[k][i];
                    sum = sum + product;
                }
                wrong += out[i] != sum;
            }
            REQUIRE(wrong == 0);
        }
    });
}

TEST_CASE("a softened frame is a Gaussian of its light, the same from every store, for every region") {
    const Folder folder;
    const Size size{150, 110};
    Raster16 dots(size, 3);
    for (const auto& [x, y] : {std::pair{0, 0}, {70, 50}, {149, 60}, {30, 109}, {31, 100}})
        for (int c = 0; c < 3; ++c) dots.at(x, y, c) = std::uint16_t(65535 - 20000 * c);
    test::write(folder / "a.tif", dots, 16);
    test::write(folder / "b.png", test::speckle_8(size, 3, 9), 8);
    Job job;
    std::vector<NamedFile> files{{folder / "a.tif"}, {folder / "b.png"}};
    const Pile pile = open_frames(files, Outcome::trails, Order::given, job).value();
    const std::vector<int> ids{pile.frames[0].id, pile.frames[1].id};
    FrameStore streams(working_space(pile), {0, ample});
    for (const double radius : {0.9, 7.0, 30.0}) {
        const std::vector<Take> takes{softly(ids[0], radius), softly(ids[1], radius)};
        const Keeping all = kept(pile, streams, takes, whole(size));
        for (std::size_t k = 0; k < 2; ++k) {
            const Raster16 frame = read_frame(*pile.frames[k].file, 0, working_space(pile), job).value();
            int worst = 0;
            for (int y = 0; y < size.height; y += 7)
                for (int x = 0; x < size.width; x += 5)
                    for (int c = 0; c < 3; ++c)
                        worst =
                            std::max(worst, std::abs(all.out[k].at(x, y, c) - softened(frame, radius / 2, x, y, c)));
            INFO("radius " << radius << ", frame " << k);
            CHECK(worst <= 4);
        }
        FrameStore memory(working_space(pile), {ample, ample});
        FrameStore scratch(working_space(pile), {1, ample});
        for (FrameStore* store : {&streams, &memory, &scratch})
            for (const Rect& region : {whole(size), Rect{20, 31, 77, 40}, Rect{149, 109, 1, 1}}) {
                const Keeping part = kept(pile, *store, takes, region);
                for (std::size_t k = 0; k < 2; ++k)
                    for (int y = 0; y < region.height; ++y)
                        REQUIRE(std::equal(part.out[k].row(y), part.out[k].row(y) + region.width * 3,
                                           all.out[k].row(region.top + y) + region.left * 3));
            }
    }
    // At a level the radius is as much smaller; none at all is the frame itself.
    const Keeping coarse = kept(pile, streams, {softly(ids[0], 14), softly(ids[0], 0)}, {0, 0, 75, 55}, 1);
    const Raster16 half = read_frame(*pile.frames[0].file, 1, working_space(pile), job).value();
    CHECK(test::difference(coarse.out[1], half).empty());
    CHECK(std::abs(coarse.out[0].at(35, 25, 0) - softened(half, 3.5, 35, 25, 0)) <= 4);
}

TEST_CASE("a frame that is taken several times gives what each take alone gives") {
    const Folder folder;
    const Size size{210, 160};
    Pile pile = test::speckle_pile(folder, 2, size, 8);
    const int id = pile.frames[1].id;
    Look look;
    look.exposure_ev = 0.5;
    pile = with_look(with_hot_pixels(std::move(pile), std::make_shared<const HotPixels>(HotPixels{{40, 30}, {0, 90}})),
                     look);
    Mask sky(size);
    sky.edit({0, 0, 210, 80}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    pile = with_zones(std::move(pile), sky);
    for (const Matrix& place : {Matrix::rigid(0.02, {100, 80}, 3, -2), Matrix::rigid(2.5, {100, 80}, 0, 0)}) {
        Alignment moved;
        moved.to_reference = place;
        const Pile now = with_alignments(pile, Model::rigid, pile.frames[0].id, {{id, moved}});
        const Take turning = takes_of({id}, Zone::sky).front();
        const Take still = takes_of({id}, Zone::land).front();
        Take soft = softly(id, 9);
        soft.rows = {20, 120};
        Take soft_still = soft;
        soft_still.zone = Zone::land;
        const std::vector<Take> takes{turning, still, soft, soft_still};
        for (const MemoryBudget budget : {MemoryBudget{0, ample}, MemoryBudget{1, ample}, MemoryBudget{ample, ample}}) {
            FrameStore store(working_space(now), budget);
            for (const Rect& region : {whole(size), Rect{50, 40, 90, 70}}) {
                const Keeping together = kept(now, store, takes, region);
                for (std::size_t k = 0; k < takes.size(); ++k) {
                    FrameStore own(working_space(now), {0, ample});
                    INFO("take " << k);
                    CHECK(test::difference(together.out[k], kept(now, own, {takes[k]}, region).out[0]).empty());
                }
            }
        }
    }
}

TEST_CASE("a pile with zones reads its frames once") {
    const Folder folder;
    const Size size{400, 300};
    const Pile plain = with_mode(test::speckle_pile(folder, 6, size, 8), Mode::median);
    Mask sky(size);
    sky.edit({0, 0, 400, 160}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    Alignment moved;
    moved.to_reference = Matrix::shift(2.5, 4.25);
    const Pile zoned =
        with_alignments(with_zones(plain, sky), Model::shift, plain.frames[0].id, {{plain.frames[2].id, moved}});
    Job job;
    const auto read_by = [&](const Pile& pile) {
        FrameStore store(working_space(pile), {0, ample});
        const long long before = bytes_read();
        REQUIRE(render(pile, store, whole(size), 0, job).ok());
        return bytes_read() - before;
    };
    const long long once = read_by(plain);
    CHECK(once > 6 * 100000);
    CHECK(double(read_by(zoned)) < 1.1 * double(once));
}
