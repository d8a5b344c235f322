#include "image/mask.h"

#include <algorithm>
#include <atomic>
#include <cmath>
#include <mutex>
#include <numeric>
#include <utility>

#include "base/parallel.h"

namespace bp {

struct Mask::Table {
    explicit Table(Tiles of) : tiles(std::move(of)) {}

    // What find() gives, which is asked for once.
    template <class T, class Find>
    static const T& known(std::mutex& mutex, std::atomic<bool>& is_known, T& value, const Find& find) {
        if (!is_known.load(std::memory_order_acquire)) {
            const std::lock_guard lock(mutex);
            if (!is_known.load(std::memory_order_relaxed)) {
                value = find();
                is_known.store(true, std::memory_order_release);
            }
        }
        return value;
    }

    Tiles tiles;
    std::mutex mutex;
    std::atomic<bool> bounds_known{false}, fingerprint_known{false};
    Rect bounds;
    Fingerprint fingerprint{};
};

Mask::Mask(Size size) : size_(size) {}

const Mask::Tiles& Mask::tiles() const {
    static const Tiles none;
    return table_ ? table_->tiles : none;
}

Mask::Tiles& Mask::own_tiles() {
    if (!table_)
        table_ = std::make_shared<Table>(Tiles(std::size_t(columns()) * std::size_t(rows())));
    else if (table_.use_count() > 1)
        table_ = std::make_shared<Table>(table_->tiles);
    table_->bounds_known.store(false, std::memory_order_relaxed);
    table_->fingerprint_known.store(false, std::memory_order_relaxed);
    return table_->tiles;
}

Mask Mask::full(Size size) {
    Mask out(size);
    const auto inner = std::make_shared<Tile>();
    inner->fill(255);
    const int whole_columns = size.width / tile, whole_rows = size.height / tile;
    Tiles& tiles = out.own_tiles();
    for (int row = 0; row < whole_rows; ++row)
        for (int column = 0; column < whole_columns; ++column)
            tiles[std::size_t(row) * std::size_t(out.columns()) + std::size_t(column)] = inner;
    // Beyond the edges a mask keeps nothing.
    const auto keep = [](int, int, std::uint8_t) { return std::uint8_t(255); };
    out.edit({whole_columns * tile, 0, size.width - whole_columns * tile, size.height}, keep);
    out.edit({0, whole_rows * tile, whole_columns * tile, size.height - whole_rows * tile}, keep);
    return out;
}

bool Mask::empty() const {
    return bounds().empty();
}

const Mask::Tile* Mask::tile_at(int column, int row) const {
    return table_ ? table_->tiles[std::size_t(row) * std::size_t(columns()) + std::size_t(column)].get() : nullptr;
}

std::uint8_t Mask::at(int x, int y) const {
    if (x < 0 || y < 0 || x >= size_.width || y >= size_.height) return 0;
    const Tile* t = tile_at(x / tile, y / tile);
    return t ? (*t)[std::size_t(y % tile) * tile + std::size_t(x % tile)] : std::uint8_t{0};
}

void Mask::read_row(int level, int y, int left, int width, std::uint8_t* out) const {
    std::fill_n(out, width, std::uint8_t{0});
    const int unit = 1 << level;
    const Size seen = at_level(size_, level);
    if (y < 0 || y >= seen.height) return;
    const int y_end = std::min((y + 1) * unit, size_.height);
    const int end = std::min(left + width, seen.width);
    // Pixels of a level lie in one tile, or in whole ones.
    const int in_tile = std::max(1, tile / unit);
    for (int x = std::max(0, left); x < end;) {
        const int next = std::min(end, (x / in_tile + 1) * in_tile);
        if (unit > tile) {
            out[x - left] = mean_of({x * unit, y * unit, std::min(unit, size_.width - x * unit), y_end - y * unit});
        } else if (const Tile* t = tile_at(x * unit / tile, y * unit / tile)) {
            const std::uint8_t* row = t->data() + std::size_t(y * unit % tile) * tile;
            if (unit == 1) {
                std::copy_n(row + x % tile, next - x, out + (x - left));
            } else {
                for (int i = x; i < next; ++i) {
                    const int across = std::min(unit, size_.width - i * unit), down = y_end - y * unit;
                    int sum = 0;
                    for (int v = 0; v < down; ++v)
                        sum = std::accumulate(row + std::ptrdiff_t(v) * tile + i * unit % tile,
                                              row + std::ptrdiff_t(v) * tile + i * unit % tile + across, sum);
                    const int count = across * down;
                    out[i - left] = std::uint8_t((sum + count / 2) / count);
                }
            }
        }
        x = next;
    }
}

std::uint8_t Mask::mean_of(const Rect& area) const {
    long long sum = 0;
    for (int y = area.top; y < area.bottom(); ++y)
        for (int x = area.left; x < area.right(); ++x) sum += at(x, y);
    const long long count = (long long)area.width * area.height;
    return std::uint8_t((sum + count / 2) / count);
}

std::size_t Mask::bytes_beside(const Mask& other) const {
    if (!table_ || table_ == other.table_) return 0;
    const Tiles &own = tiles(), &others = other.tiles();
    std::size_t out = own.size() * sizeof(own[0]);
    for (std::size_t i = 0; i < own.size(); ++i)
        if (own[i] && (i >= others.size() || own[i] != others[i])) out += sizeof(Tile);
    return out;
}

Rect Mask::bounds() const {
    if (!table_) return {};
    return Table::known(table_->mutex, table_->bounds_known, table_->bounds, [this] { return find_bounds(); });
}

Rect Mask::find_bounds() const {
    Rect out;
    for (int row = 0; row < rows(); ++row)
        for (int column = 0; column < columns(); ++column) {
            const Tile* t = tile_at(column, row);
            const Rect all{column * tile, row * tile, tile, tile};
            if (!t || (!out.empty() && intersect(out, all) == all)) continue;
            for (int y = 0; y < tile; ++y) {
                const auto first = t->begin() + std::ptrdiff_t(y) * tile, last = first + tile;
                const auto kept = [](std::uint8_t v) { return v > 0; };
                const auto left = std::find_if(first, last, kept);
                if (left == last) continue;
                const auto right =
                    std::find_if(std::make_reverse_iterator(last), std::make_reverse_iterator(left), kept);
                out = unite(out, {all.left + int(left - first), all.top + y, int(right.base() - left), 1});
            }
        }
    return out;
}

Rect Mask::bounds_of_change(const Mask& other) const {
    Rect out;
    for (int row = 0; row < rows(); ++row)
        for (int column = 0; column < columns(); ++column) {
            if (tile_at(column, row) == other.tile_at(column, row)) continue;
            const Rect here = intersect({column * tile, row * tile, tile, tile}, whole(size_));
            for (int y = here.top; y < here.bottom(); ++y)
                for (int x = here.left; x < here.right(); ++x)
                    if (at(x, y) != other.at(x, y)) out = unite(out, {x, y, 1, 1});
        }
    return out;
}

void Mask::edit(const Rect& area, const std::function<std::uint8_t(int, int, std::uint8_t)>& change) {
    edit_rows(area, [&](int x, int y, std::span<std::uint8_t> values) {
        for (std::uint8_t& value : values) value = change(x++, y, value);
    });
}

void Mask::edit_rows(const Rect& area, const std::function<void(int, int, std::span<std::uint8_t>)>& change) {
    const Rect inside = intersect(area, whole(size_));
    if (inside.empty()) return;
    Tiles& tiles = own_tiles();
    for (int row = inside.top / tile; row <= (inside.bottom() - 1) / tile; ++row)
        for (int column = inside.left / tile; column <= (inside.right() - 1) / tile; ++column) {
            auto& slot = tiles[std::size_t(row) * std::size_t(columns()) + std::size_t(column)];
            auto fresh = slot ? std::make_shared<Tile>(*slot) : std::make_shared<Tile>();
            const Rect here = intersect(inside, {column * tile, row * tile, tile, tile});
            for (int y = here.top; y < here.bottom(); ++y)
                change(here.left, y,
                       std::span(*fresh).subspan(std::size_t(y % tile) * tile + std::size_t(here.left % tile),
                                                 std::size_t(here.width)));
            // What stays nothing takes no memory.
            if (slot || std::any_of(fresh->begin(), fresh->end(), [](std::uint8_t v) { return v != 0; }))
                slot = std::move(fresh);
        }
}

Fingerprint Mask::fingerprint() const {
    if (!table_) return find_fingerprint();
    return Table::known(table_->mutex, table_->fingerprint_known, table_->fingerprint,
                        [this] { return find_fingerprint(); });
}

Fingerprint Mask::find_fingerprint() const {
    Fingerprinter of_tiles;
    const std::size_t count = std::size_t(columns()) * std::size_t(rows());
    for (std::size_t i = 0; i < count; ++i) {
        const Tile* t = table_ ? table_->tiles[i].get() : nullptr;
        const Fingerprint of_tile = t ? fingerprint_of_bytes(t->data(), t->size()) : Fingerprint{};
        of_tiles.number(of_tile[0]).number(of_tile[1]);
    }
    return of_tiles.done();
}

// The one value of a tile.
std::optional<std::uint8_t> Mask::even_value(int column, int row) const {
    const Tile* t = tile_at(column, row);
    if (!t) return std::uint8_t{0};
    const Rect here = intersect({column * tile, row * tile, tile, tile}, whole(size_));
    const std::uint8_t first = (*t)[0];
    for (int y = 0; y < here.height; ++y)
        for (int x = 0; x < here.width; ++x)
            if ((*t)[std::size_t(y) * tile + std::size_t(x)] != first) return std::nullopt;
    return first;
}

Mask Mask::softened(double width) const {
    const double half = std::clamp(width, 0.0, widest_softening) / 2;
    // Weights fall evenly from the middle to nothing at half the width.
    std::vector<double> weights;
    double sum = 0;
    const int reach = int(std::ceil(half)) - 1;
    if (reach < 1) return *this;
    for (int d = -reach; d <= reach; ++d) sum += weights.emplace_back(half - std::abs(d));
    for (double& w : weights) w /= sum;
    std::vector<std::optional<std::uint8_t>> even;
    for (int row = 0; row < rows(); ++row)
        for (int column = 0; column < columns(); ++column) even.push_back(even_value(column, row));
    const auto across_tiles = std::size_t(columns());
    const auto quiet = [&](int column, int row) {
        const auto own = even[std::size_t(row) * across_tiles + std::size_t(column)];
        for (int v = std::max(0, row - 1); v <= std::min(rows() - 1, row + 1); ++v)
            for (int u = std::max(0, column - 1); u <= std::min(columns() - 1, column + 1); ++u)
                if (!own || even[std::size_t(v) * across_tiles + std::size_t(u)] != own) return false;
        return true;
    };
    std::vector<std::pair<int, int>> bordered;
    for (int row = 0; row < rows(); ++row)
        for (int column = 0; column < columns(); ++column)
            if (!quiet(column, row)) bordered.emplace_back(column, row);
    Mask out = *this;
    out.own_tiles();  // before many write to them at once
    parallel_for(0, int(bordered.size()), [&](int n) {
        const auto [column, row] = bordered[std::size_t(n)];
        const Rect here = intersect({column * tile, row * tile, tile, tile}, whole(size_));
        const auto inside = [](int v, int end) { return std::clamp(v, 0, end - 1); };
        const int high = here.height + 2 * reach;
        const auto wide = std::size_t(here.width);
        const std::size_t each = wide + 2 * std::size_t(reach);
        std::vector<std::uint8_t> values(std::size_t(high) * each);
        for (int y = 0; y < high; ++y) {
            const int left = here.left - reach, v = inside(here.top - reach + y, size_.height);
            std::uint8_t* to = values.data() + std::size_t(y) * each;
            read_row(0, v, left, int(each), to);
            // Beyond the edges it goes on as it is there.
            const int begin = std::max(0, -left), end = std::min(int(each), size_.width - left);
            std::fill(to, to + begin, to[begin]);
            std::fill(to + end, to + each, to[end - 1]);
        }
        // The border of a tile beside it may lie too far off.
        if (std::all_of(values.begin(), values.end(), [&](std::uint8_t v) { return v == values.front(); })) return;
        // Every sum is taken in the same order, weight by weight, whatever is vectorised.
        std::vector<double> line(each);
        std::vector<double> across(std::size_t(high) * wide, 0);
        for (int y = 0; y < high; ++y) {
            const std::uint8_t* from = values.data() + std::size_t(y) * each;
            if (std::all_of(from, from + each, [](std::uint8_t value) { return value == 0; })) continue;
            std::copy(from, from + each, line.begin());
            double* sums = across.data() + std::size_t(y) * wide;
            for (std::size_t d = 0; d < weights.size(); ++d)
                for (std::size_t x = 0; x < wide; ++x) sums[x] += weights[d] * line[x + d];
        }
        std::vector<double> down(std::size_t(here.height) * wide, 0);
        for (std::size_t y = 0; y < std::size_t(here.height); ++y)
            for (std::size_t d = 0; d < weights.size(); ++d) {
                const double* sums = across.data() + (y + d) * wide;
                for (std::size_t x = 0; x < wide; ++x) down[y * wide + x] += weights[d] * sums[x];
            }
        out.edit_rows(here, [&](int, int y, std::span<std::uint8_t> to) {
            const double* sums = down.data() + std::size_t(y - here.top) * wide;
            for (std::size_t x = 0; x < wide; ++x) {
                const int below = int(sums[x]);
                to[x] = std::uint8_t(below + (sums[x] - below >= 0.5 ? 1 : 0));
            }
        });
    });
    return out;
}

Mask Mask::from_raster(Size size, Point corner, const Raster8& raster) {
    Mask out(size);
    const int left = int(corner.x);
    const int top = int(corner.y);
    out.edit_rows({left, top, raster.width(), raster.height()}, [&](int x, int y, std::span<std::uint8_t> to) {
        std::copy_n(raster.row(y - top) + (x - left), to.size(), to.begin());
    });
    return out;
}

Raster8 Mask::to_raster(const Rect& area) const {
    Raster8 out(area.size(), 1);
    for (int y = 0; y < area.height; ++y) read_row(0, area.top + y, area.left, area.width, out.row(y));
    return out;
}

bool operator==(const Mask& a, const Mask& b) {
    if (a.size_ != b.size_) return false;
    if (a.table_ == b.table_) return true;
    static const Mask::Tile none{};
    for (int row = 0; row < a.rows(); ++row)
        for (int column = 0; column < a.columns(); ++column) {
            const Mask::Tile *here = a.tile_at(column, row), *there = b.tile_at(column, row);
            if (here != there && (here ? *here : none) != (there ? *there : none)) return false;
        }
    return true;
}

}  // namespace bp
