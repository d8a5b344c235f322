// Pictures in layers, read back with libzip and put together again; capture data; names.
#include <zip.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <exiv2/exiv2.hpp>
#include <fstream>

#include "base/text.h"
#include "engine/export.h"
#include "engine/export_names.h"
#include "engine/open.h"
#include "engine/render.h"
#include "io/gather.h"
#include "io/layered_writer.h"
#include "io/reader.h"
#include "pile/edits.h"
#include "pile/finish_edits.h"
#include "pile/part_edits.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

namespace {

// Named pieces of an archive, in its order.
std::vector<std::pair<std::string, std::string>> pieces_in(const fs::path& file) {
    std::vector<std::pair<std::string, std::string>> out;
    int error = 0;
    zip_t* archive = zip_open(file.c_str(), ZIP_RDONLY | ZIP_CHECKCONS, &error);
    REQUIRE(archive);
    for (zip_int64_t i = 0; i < zip_get_num_entries(archive, 0); ++i) {
        zip_stat_t stat;
        REQUIRE(zip_stat_index(archive, zip_uint64_t(i), 0, &stat) == 0);
        std::string bytes(stat.size, '\0');
        zip_file_t* in = zip_fopen_index(archive, zip_uint64_t(i), 0);
        REQUIRE(zip_fread(in, bytes.data(), bytes.size()) == zip_int64_t(bytes.size()));
        zip_fclose(in);
        out.emplace_back(stat.name, std::move(bytes));
    }
    zip_close(archive);
    return out;
}

std::string piece_named(const std::vector<std::pair<std::string, std::string>>& all, const std::string& name) {
    for (const auto& [of, bytes] : all)
        if (of == name) return bytes;
    return {};
}

// A PNG of 16 bits as it is, with what it lets through.
struct ReadLayer {
    int width = 0, height = 0, channels = 0;
    std::vector<std::uint16_t> samples;
    std::uint16_t at(int x, int y, int c) const {
        return samples[(std::size_t(y) * std::size_t(width) + std::size_t(x)) * std::size_t(channels) + std::size_t(c)];
    }
};
ReadLayer read_layer(const std::string& bytes);

double attribute(const std::string& line, const std::string& name) {
    const std::size_t at = line.find(" " + name + "=\"");
    REQUIRE(at != std::string::npos);
    return std::stod(line.substr(at + name.size() + 3));
}

Pile layered_pile(const Folder& folder, Size size) {
    Pile pile = with_mode(test::speckle_pile(folder, 4, size, 16), Mode::median);
    const auto add = [&](std::size_t frame, const Rect& where, Join join, double strength, const char* name) {
        auto [next, id] = with_new_part(pile, pile.frames[frame].id);
        Mask mask(size);
        mask.edit(where,
                  [&](int x, int, std::uint8_t) { return std::uint8_t(std::min(255, 40 + 5 * (x - where.left))); });
        next = with_part_mask(std::move(next), id, mask);
        next = with_part_join(std::move(next), id, join);
        next = with_part_strength(std::move(next), id, strength);
        pile = with_part_name(std::move(next), id, name);
        return id;
    };
    add(1, {10, 8, 60, 40}, Join::replace, 1, "heron & <friend>");
    add(2, {30, 20, 70, 50}, Join::lighter, 0.6, "lamp");
    add(3, {5, 30, 50, 45}, Join::darker, 0.9, "shade");
    add(1, {60, 50, 30, 25}, Join::add, 0.5, "spark");
    const int hidden = add(2, {0, 0, 20, 20}, Join::replace, 1, "hidden");
    pile = with_part_on(std::move(pile), hidden, false);
    Look look;
    look.exposure_ev = 0.5;
    return with_finish_look(std::move(pile), look);
}

}  // namespace

#include <vips/vips.h>
namespace {
ReadLayer read_layer(const std::string& bytes) {
    static const bool started = vips_init("layers") == 0;
    REQUIRE(started);
    VipsImage* image = vips_image_new_from_buffer(bytes.data(), bytes.size(), "", nullptr);
    REQUIRE(image);
    ReadLayer out{vips_image_get_width(image), vips_image_get_height(image), vips_image_get_bands(image), {}};
    REQUIRE(vips_image_get_format(image) == VIPS_FORMAT_USHORT);
    std::size_t size = 0;
    void* memory = vips_image_write_to_memory(image, &size);
    out.samples.resize(size / 2);
    std::memcpy(out.samples.data(), memory, size);
    g_free(memory);
    g_object_unref(image);
    return out;
}
}  // namespace

TEST_CASE(
    "layers put together again are the picture before it is finished, and the whole picture is the finished one") {
    const Folder folder, out;
    const Size size{120, 90};
    const Pile pile = layered_pile(folder, size);
    Job job;
    REQUIRE(export_picture(pile, out / "layers.ora", {}, job).ok());
    const auto pieces = pieces_in(out / "layers.ora");
    // Known by its first bytes: the kind comes first and is stored.
    REQUIRE(pieces.front().first == "mimetype");
    CHECK(pieces.front().second == "image/openraster");
    CHECK(test::bytes_of(out / "layers.ora").substr(30, 24) == "mimetypeimage/openraster");
    const std::string stack = piece_named(pieces, "stack.xml");
    CHECK(stack.find("w=\"120\" h=\"90\"") != std::string::npos);
    CHECK(stack.find("heron &amp; &lt;friend&gt;") != std::string::npos);
    CHECK(stack.find("name=\"hidden\"") != std::string::npos);
    std::vector<std::string> layers;
    for (std::size_t at = stack.find("<layer"); at != std::string::npos; at = stack.find("<layer", at + 1))
        layers.push_back(stack.substr(at, stack.find("/>", at) - at));
    REQUIRE(layers.size() == 6);
    // From below.
    std::reverse(layers.begin(), layers.end());
    std::vector<double> made;
    for (const std::string& layer : layers) {
        if (layer.find("visibility=\"hidden\"") != std::string::npos) continue;
        const std::size_t src = layer.find("src=\"") + 5;
        const ReadLayer picture = read_layer(piece_named(pieces, layer.substr(src, layer.find('"', src) - src)));
        if (made.empty()) {
            REQUIRE(picture.channels == 3);
            made.assign(picture.samples.begin(), picture.samples.end());
            continue;
        }
        REQUIRE(picture.channels == 4);
        const int left = int(attribute(layer, "x")), top = int(attribute(layer, "y"));
        const double opacity = attribute(layer, "opacity");
        for (int y = 0; y < picture.height; ++y)
            for (int x = 0; x < picture.width; ++x)
                for (int c = 0; c < 3; ++c) {
                    double& base = made[std::size_t(((top + y) * size.width + left + x) * 3 + c)];
                    const double own = picture.at(x, y, c), share = opacity * picture.at(x, y, 3) / 65535;
                    const double met = layer.find("svg:lighten") != std::string::npos  ? std::max(own, base)
                                       : layer.find("svg:darken") != std::string::npos ? std::min(own, base)
                                                                                       : own;
                    base += share * (met - base);
                }
    }
    FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
    const Raster16 unfinished = composed(pile, store, whole(size), 0, job).value();
    double worst = 0;
    for (std::size_t i = 0; i < made.size(); ++i) worst = std::max(worst, std::abs(made[i] - unfinished.data()[i]));
    // Every layer rounds once here, and strengths are told to 255ths there.
    CHECK(worst < 140);
    const ReadLayer merged = read_layer(piece_named(pieces, "mergedimage.png"));
    const Raster16 picture = test::render_all(pile).value();
    CHECK(std::equal(merged.samples.begin(), merged.samples.end(), picture.data().begin(), picture.data().end()));
    CHECK_FALSE(piece_named(pieces, "Thumbnails/thumbnail.png").empty());
}

TEST_CASE("layers are written smaller, turned and in another profile like the picture, and never over a frame") {
    const Folder folder, out;
    const Size size{120, 90};
    Pile pile = with_turn(layered_pile(folder, size), 6);
    pile.exporting.long_edge_px = 50;
    pile.exporting.profile = ExportProfile::display_p3;
    Job job;
    REQUIRE(export_picture(pile, out / "small.ora", {}, job).ok());
    REQUIRE(export_picture(pile, out / "small.png", {}, job).ok());
    const auto pieces = pieces_in(out / "small.ora");
    const ReadLayer merged = read_layer(piece_named(pieces, "mergedimage.png"));
    CHECK(merged.width == 50);
    CHECK(merged.samples == read_layer(test::bytes_of(out / "small.png")).samples);
    CHECK(read_layer(piece_named(pieces, "data/layer2.png")).width == 50);
    fs::copy_file(folder / pile.frames[0].file->path.filename().string(), out / "frame.ora");
    CHECK(writes_in_layers("a.ORA"));
    CHECK_FALSE(writes_in_layers("a.tif"));
}

TEST_CASE("capture data tells frames and mode, and place and serial number unless they are left out") {
    const Folder folder, out;
    CaptureData capture;
    capture.captured = 1789164845.0;
    capture.exposure_s = 20;
    capture.camera = "Practice";
    capture.lens = "14 mm";
    capture.serial = "PC-0042";
    capture.where = Whereabouts{-58.25, 6.875, -12.5};
    for (int k = 0; k < 3; ++k)
        test::write(folder / ("w" + std::to_string(k) + ".tif"), test::speckle({20, 16}, 3, unsigned(k)), 16, {},
                    capture);
    const CaptureData read = read_capture(folder / "w0.tif");
    REQUIRE(read.where.has_value());
    CHECK(read.where->north == Approx(-58.25));
    CHECK(read.where->east == Approx(6.875));
    CHECK(read.where->above_m.value() == Approx(-12.5));
    CHECK(read.serial == "PC-0042");
    Job job;
    Pile pile =
        open_frames(gather_run({folder.path().string()}).value(), Outcome::trails, Order::captured, job).value();
    for (const char* name : {"a.tif", "a.png", "a.jpg", "a.webp"}) {
        for (const bool told : {true, false}) {
            INFO(name << (told ? ", told" : ", left out"));
            pile.exporting.whereabouts = told;
            REQUIRE(export_picture(pile, out / name, {}, job).ok());
            const auto image = Exiv2::ImageFactory::open((out / name).string());
            image->readMetadata();
            const Exiv2::ExifData& exif = image->exifData();
            const auto text = [&](const char* key) {
                const auto found = exif.findKey(Exiv2::ExifKey(key));
                return found == exif.end() ? std::string() : found->toString();
            };
            CHECK(text("Exif.Image.ImageDescription") == "3 frames, lighten");
            CHECK(text("Exif.Photo.CompositeImage") == "3");
            CHECK(text("Exif.Photo.SourceImageNumberOfCompositeImage") == "3 3");
            CHECK(text("Exif.Photo.LensModel") == "14 mm");
            CHECK(text("Exif.Photo.BodySerialNumber") == (told ? "PC-0042" : ""));
            const CaptureData back = read_capture(out / name);
            CHECK(back.exposure_s.value() == Approx(60));
            CHECK(back.where.has_value() == told);
            if (told) CHECK(back.where->north == Approx(-58.25));
        }
    }
    Pile parts = with_mode(pile, Mode::one);
    auto [next, id] = with_new_part(parts, pile.frames[1].id);
    Mask mask({20, 16});
    mask.edit({1, 1, 5, 5}, [](int, int, std::uint8_t) { return std::uint8_t{255}; });
    const CaptureData of_parts = merged_capture(with_part_mask(std::move(next), id, mask));
    CHECK(of_parts.frames == 2);
    CHECK(of_parts.made_of == "1 frame, parts of 1 more");
}

TEST_CASE("names of exports say what stands in braces, differ, and fit into a folder") {
    const Folder folder;
    Pile pile = test::speckle_pile(folder, 3, {40, 30}, 8);
    CHECK(export_names(pile, "night") == std::vector<std::string>{"night.tif"});
    pile.exporting.name = "{pile}-{frames} {mode} {width}x{height} {nothing}";
    CHECK(export_names(pile, "night").front() == "night-3 lighten 40x30 {nothing}.tif");
    pile.exporting.name = "../{pile}/x";
    CHECK(export_names(pile, "night").front() == "-night-x.tif");
    // One that is too long for a disk ends with a whole character.
    pile.exporting.name = std::string("n");
    for (int i = 0; i < 90; ++i) pile.exporting.name += "\xe2\x98\x83";
    const std::string cut = export_names(pile, "night").front();
    CHECK(cut.size() == 1 + 66 * 3 + std::string(".tif").size());
    CHECK(valid_utf8(cut) == cut);
    pile.exporting.name = "same";
    ExportSettings small;
    small.ending = ".jpg";
    small.long_edge_px = 20;
    small.name = "small {width}";
    pile.also = {small, pile.exporting};
    CHECK(export_names(pile, "night") == std::vector<std::string>{"same.tif", "small 20.jpg", "same-2.tif"});
    for (const std::string& word : name_words()) {
        pile.exporting.name = "x" + word;
        CHECK(export_names(pile, "n").front().find('{') == std::string::npos);
    }
}
