#include "io/layered_writer.h"

#include <fcntl.h>
#include <unistd.h>
#include <zip.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdio>

#include "base/output.h"
#include "io/file_target.h"
#include "io/writers.h"

namespace bp {
namespace {

// A file without a name: it is gone when it is let go.
class Unnamed {
  public:
    explicit Unnamed(const fs::path& folder) {
        std::error_code error;
        fs::create_directories(folder, error);
        fd_ = ::open(folder.c_str(), O_RDWR | O_TMPFILE | O_CLOEXEC, 0600);
    }
    ~Unnamed() {
        if (fd_ >= 0) ::close(fd_);
    }
    Unnamed(const Unnamed&) = delete;
    Unnamed& operator=(const Unnamed&) = delete;
    bool there() const { return fd_ >= 0; }
    fs::path path() const { return "/proc/self/fd/" + std::to_string(fd_); }

  private:
    int fd_ = -1;
};

std::string escaped(const std::string& text) {
    std::string out;
    for (const char c : text) switch (c) {
            case '&':
                out += "&amp;";
                break;
            case '<':
                out += "&lt;";
                break;
            case '>':
                out += "&gt;";
                break;
            case '"':
                out += "&quot;";
                break;
            default:
                // What XML cannot hold.
                if (static_cast<unsigned char>(c) >= 0x20) out += c;
        }
    return out;
}

std::string number(double value) {
    std::array<char, 32> text{};
    std::snprintf(text.data(), text.size(), "%.4f", value);
    return text.data();
}

// Where the archive goes: libzip writes it from its begin to its end.
struct Sink {
    io::FileTarget& target;
    zip_error_t error;
    std::uint64_t length = 0;
};

zip_int64_t sink_does(void* state, void* data, zip_uint64_t length, zip_source_cmd_t what) {
    auto& sink = *static_cast<Sink*>(state);
    const auto failed = [&](int code) {
        zip_error_set(&sink.error, code, 0);
        return zip_int64_t(-1);
    };
    switch (what) {
        case ZIP_SOURCE_SUPPORTS:
            return zip_source_make_command_bitmap(ZIP_SOURCE_OPEN, ZIP_SOURCE_READ, ZIP_SOURCE_CLOSE, ZIP_SOURCE_STAT,
                                                  ZIP_SOURCE_ERROR, ZIP_SOURCE_FREE, ZIP_SOURCE_SEEK, ZIP_SOURCE_TELL,
                                                  ZIP_SOURCE_BEGIN_WRITE, ZIP_SOURCE_COMMIT_WRITE,
                                                  ZIP_SOURCE_ROLLBACK_WRITE, ZIP_SOURCE_WRITE, ZIP_SOURCE_SEEK_WRITE,
                                                  ZIP_SOURCE_TELL_WRITE, ZIP_SOURCE_REMOVE, -1);
        case ZIP_SOURCE_STAT: {
            auto* stat = static_cast<zip_stat_t*>(data);
            zip_stat_init(stat);
            stat->size = 0;
            stat->valid |= ZIP_STAT_SIZE;
            return sizeof(zip_stat_t);
        }
        case ZIP_SOURCE_ERROR:
            return zip_error_to_data(&sink.error, data, length);
        case ZIP_SOURCE_WRITE:
            if (!sink.target.write(static_cast<const char*>(data), int(length))) return failed(ZIP_ER_WRITE);
            sink.length = std::max(sink.length, sink.target.place());
            return zip_int64_t(length);
        case ZIP_SOURCE_SEEK_WRITE: {
            // A header is written once more when what follows it is known.
            const zip_int64_t to =
                zip_source_seek_compute_offset(sink.target.place(), sink.length, data, length, &sink.error);
            return to >= 0 && sink.target.seek(std::uint64_t(to)) ? 0 : failed(ZIP_ER_SEEK);
        }
        case ZIP_SOURCE_TELL_WRITE:
            return zip_int64_t(sink.target.place());
        case ZIP_SOURCE_COMMIT_WRITE:
            return sink.target.flush() ? 0 : failed(ZIP_ER_WRITE);
        case ZIP_SOURCE_READ:
        case ZIP_SOURCE_SEEK:
        case ZIP_SOURCE_TELL:
            return failed(ZIP_ER_OPNOTSUPP);
        default:
            return 0;
    }
}

class OpenRaster final : public LayeredWriter {
  public:
    OpenRaster(fs::path file, Size size, double dpi, int bits, fs::path folder)
        : file_(std::move(file)), size_(size), dpi_(dpi), bits_(bits), folder_(std::move(folder)) {}

    Result<std::unique_ptr<RowWriter>> layer(const PictureLayer& layer, const PictureHead& head) override {
        const std::string name = "data/layer" + std::to_string(layers_.size() + 1) + ".png";
        layers_.push_back({layer, name});
        return picture(name, head, bits_);
    }
    Result<std::unique_ptr<RowWriter>> merged(const PictureHead& head) override {
        return picture("mergedimage.png", head, bits_);
    }
    Result<std::unique_ptr<RowWriter>> thumbnail(const PictureHead& head) override {
        return picture("Thumbnails/thumbnail.png", head, 8);
    }

    Status finish(const fs::path& beside) {
        Output output(beside);
        if (output.fd < 0) return output.failure(file_, {});
        io::FileTarget target(output);
        Sink sink{target, {}, 0};
        zip_error_init(&sink.error);
        zip_error_t error;
        zip_error_init(&error);
        zip_source_t* to = zip_source_function_create(sink_does, &sink, &error);
        zip_t* archive = to ? zip_open_from_source(to, ZIP_CREATE | ZIP_TRUNCATE, &error) : nullptr;
        if (!archive) {
            if (to) zip_source_free(to);
            return output.failure(file_, "the archive cannot be begun");
        }
        // The kind of the file comes first and as it is, so that it is known by its first bytes.
        const std::string kind = "image/openraster", stack = stack_of();
        bool well = add(archive, "mimetype", zip_source_buffer(archive, kind.data(), kind.size(), 0), false) &&
                    add(archive, "stack.xml", zip_source_buffer(archive, stack.data(), stack.size(), 0), true);
        for (const Inside& one : pictures_) {
            std::FILE* from = std::fopen(one.file->path().c_str(), "rb");
            well = well && from && add(archive, one.name, zip_source_filep(archive, from, 0, -1), false);
        }
        if (!well || zip_close(archive) != 0) {
            zip_discard(archive);
            return output.failure(file_, "the archive cannot be written");
        }
        if (!target.flush() || output.error != 0) return output.failure(file_, {});
        return Done{};
    }

  private:
    struct Inside {
        std::string name;
        std::unique_ptr<Unnamed> file;
    };
    struct Listed {
        PictureLayer layer;
        std::string name;
    };

    Result<std::unique_ptr<RowWriter>> picture(const std::string& name, const PictureHead& head, int bits) {
        pictures_.push_back({name, std::make_unique<Unnamed>(folder_)});
        if (!pictures_.back().file->there())
            return Failure{Fault::output,
                           file_.string(),
                           {"There is no room for layers in %1. Make room on that disk, or choose another place.",
                            {folder_.string()}}};
        return io::vips_writer(pictures_.back().file->path(), head, bits, Format::png, 100);
    }
    static bool add(zip_t* archive, const std::string& name, zip_source_t* source, bool packed) {
        if (!source) return false;
        const zip_int64_t index = zip_file_add(archive, name.c_str(), source, ZIP_FL_ENC_UTF_8);
        if (index < 0) {
            zip_source_free(source);
            return false;
        }
        constexpr zip_uint16_t first_of_january_2000 = (20 << 9) | (1 << 5) | 1;
        return zip_set_file_compression(archive, zip_uint64_t(index), packed ? ZIP_CM_DEFLATE : ZIP_CM_STORE, 0) == 0 &&
               zip_file_set_dostime(archive, zip_uint64_t(index), 0, first_of_january_2000, 0) == 0;
    }
    // From the one above all others down.
    std::string stack_of() const {
        std::string out = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<image version=\"0.0.5\" w=\"" +
                          std::to_string(size_.width) + "\" h=\"" + std::to_string(size_.height) + "\"";
        if (dpi_ > 0) {
            const std::string dpi = std::to_string(std::lround(dpi_));
            out += " xres=\"" + dpi + "\" yres=\"" + dpi + "\"";
        }
        out += ">\n <stack>\n";
        for (auto it = layers_.rbegin(); it != layers_.rend(); ++it) {
            const PictureLayer& layer = it->layer;
            out += "  <layer name=\"" + escaped(layer.name) + "\" src=\"" + it->name + "\" x=\"" +
                   std::to_string(layer.left) + "\" y=\"" + std::to_string(layer.top) + "\" opacity=\"" +
                   number(layer.opacity) + "\" visibility=\"" + (layer.visible ? "visible" : "hidden") +
                   "\" composite-op=\"" + layer.operation + "\"/>\n";
        }
        return out + " </stack>\n</image>\n";
    }

    fs::path file_;
    Size size_;
    double dpi_;
    int bits_;
    fs::path folder_;
    std::vector<Inside> pictures_;
    std::vector<Listed> layers_;
};

}  // namespace

bool writes_in_layers(const fs::path& file) {
    std::string ending = file.extension().string();
    std::transform(ending.begin(), ending.end(), ending.begin(), [](unsigned char c) { return char(std::tolower(c)); });
    return ending == ".ora";
}

Status write_in_layers(const fs::path& file, Size size, double dpi, int bits, const fs::path& folder,
                       const std::function<Status(LayeredWriter&)>& fill) {
    return write_whole(file, [&](const fs::path& beside) -> Status {
        OpenRaster writer(file, size, dpi, bits, folder);
        if (Status filled = fill(writer); !filled.ok()) return filled;
        return writer.finish(beside);
    });
}

}  // namespace bp
