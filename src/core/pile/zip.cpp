#include "pile/zip.h"

#include <zip.h>

#include <algorithm>
#include <memory>

namespace bp {
namespace {

Failure failed(const std::filesystem::path& file, const Saying& why) {
    return {Fault::input, file.string(), why};
}

std::string error_text(int code) {
    zip_error_t error;
    zip_error_init_with_code(&error, code);
    std::string out = zip_error_strerror(&error);
    zip_error_fini(&error);
    return out;
}

bool add(zip_t* archive, const std::string& name, const Bytes& bytes) {
    zip_source_t* source = zip_source_buffer(archive, bytes.data(), bytes.size(), 0);
    if (!source) return false;
    const zip_int64_t index = zip_file_add(archive, name.c_str(), source, ZIP_FL_ENC_UTF_8);
    if (index < 0) {
        zip_source_free(source);
        return false;
    }
    const bool packed = name.size() > 4 && name.compare(name.size() - 4, 4, ".png") == 0;
    constexpr zip_uint16_t first_of_january_2000 = (20 << 9) | (1 << 5) | 1;
    return zip_set_file_compression(archive, zip_uint64_t(index), packed ? ZIP_CM_STORE : ZIP_CM_DEFLATE, 0) == 0 &&
           zip_file_set_dostime(archive, zip_uint64_t(index), 0, first_of_january_2000, 0) == 0;
}

// Memory is taken for what comes, not for what the list of contents claims. False when that is not what comes.
bool read_piece(zip_file_t* piece, std::uint64_t claimed, Bytes& out) {
    constexpr std::size_t step = std::size_t(1) << 20;
    while (out.size() < claimed) {
        const std::size_t before = out.size();
        out.resize(before + std::size_t(std::min<std::uint64_t>(step, claimed - before)));
        const zip_int64_t got = zip_fread(piece, out.data() + before, out.size() - before);
        if (got != zip_int64_t(out.size() - before)) return false;
    }
    return true;
}

}  // namespace

Result<Bytes> zipped(const Pieces& pieces) {
    const auto refused = [](const std::string& why) { return Failure{Fault::output, "", why}; };
    zip_error_t error;
    zip_error_init(&error);
    zip_source_t* memory = zip_source_buffer_create(nullptr, 0, 0, &error);
    if (!memory) return refused(zip_error_strerror(&error));
    zip_source_keep(memory);  // to be read from when the archive is closed
    const std::unique_ptr<zip_source_t, void (*)(zip_source_t*)> kept(memory, &zip_source_free);
    zip_t* archive = zip_open_from_source(memory, ZIP_CREATE | ZIP_TRUNCATE, &error);
    if (!archive) {
        zip_source_free(memory);
        return refused(zip_error_strerror(&error));
    }
    for (const auto& [name, bytes] : pieces)
        if (!add(archive, name, bytes)) {
            const std::string why = zip_strerror(archive);
            zip_discard(archive);
            return refused(why);
        }
    if (zip_close(archive) != 0) {
        const std::string why = zip_strerror(archive);
        zip_discard(archive);
        return refused(why);
    }
    zip_stat_t facts;
    zip_stat_init(&facts);
    if (zip_source_stat(memory, &facts) != 0 || zip_source_open(memory) != 0)
        return refused(zip_error_strerror(zip_source_error(memory)));
    Bytes out(std::size_t(facts.size));
    const zip_int64_t got = zip_source_read(memory, out.data(), out.size());
    zip_source_close(memory);
    if (got != zip_int64_t(out.size())) return refused(zip_error_strerror(zip_source_error(memory)));
    return out;
}

Result<Pieces> read_zip(const std::filesystem::path& file, std::uint64_t limit) {
    int code = 0;
    const std::unique_ptr<zip_t, void (*)(zip_t*)> archive(zip_open(file.c_str(), ZIP_RDONLY, &code), &zip_discard);
    if (!archive) return failed(file, error_text(code));
    Pieces out;
    std::uint64_t total = 0;
    const zip_int64_t count = zip_get_num_entries(archive.get(), 0);
    for (zip_int64_t i = 0; i < count; ++i) {
        zip_stat_t facts;
        if (zip_stat_index(archive.get(), zip_uint64_t(i), 0, &facts) != 0 || !(facts.valid & ZIP_STAT_SIZE) ||
            !(facts.valid & ZIP_STAT_NAME))
            return failed(file, "its list of contents is damaged");
        total += facts.size;
        if (facts.size > limit || total > limit) return failed(file, "it claims to hold more than any pile does");
        zip_file_t* piece = zip_fopen_index(archive.get(), zip_uint64_t(i), 0);
        if (!piece) return failed(file, std::string(zip_strerror(archive.get())));
        Bytes bytes;
        const bool whole = read_piece(piece, facts.size, bytes);
        const bool closed = zip_fclose(piece) == 0;
        if (!whole || !closed) return failed(file, "it is cut short or damaged");
        out.emplace(facts.name, std::move(bytes));
    }
    return out;
}

}  // namespace bp
