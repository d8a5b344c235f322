#include "pile/schema.h"

#include <nlohmann/json.hpp>

#include "pile/fields.h"
#include "pile/format.h"

namespace bp {
namespace {

using json = nlohmann::ordered_json;
using namespace pile;

json number(const char* kind) {
    return {{"type", kind}};
}
template <class T>
json number(const char* kind, const Between<T>& limits) {
    // As it stands in the table: a float's own digits.
    return {{"type", kind},
            {"minimum", std::stod(json(limits.least).dump())},
            {"maximum", std::stod(json(limits.most).dump())}};
}
json whole_number(const Between<int>& limits) {
    return {{"type", "integer"}, {"minimum", limits.least}, {"maximum", limits.most}};
}
template <class T>
json one_of(const OneOf<T>& limits) {
    return {{"enum", limits.values}};
}
json array_of(const json& items, int count) {
    return {{"type", "array"}, {"items", items}, {"minItems", count}, {"maxItems", count}};
}
json list_of(const json& items) {
    return {{"type", "array"}, {"items", items}};
}
json object_of(const json& properties, const std::vector<std::string>& needed) {
    json out{{"type", "object"}, {"additionalProperties", false}};
    if (!needed.empty()) out["required"] = needed;
    out["properties"] = properties;
    return out;
}

const json side{{"type", "integer"}, {"minimum", 0}, {"maximum", largest_side_px}};

template <HasFields T>
json rule_of(const T& value);

template <class L>
json rule(const bool&, const L&) {
    return number("boolean");
}
template <class L>
json rule(const int&, const L& limits) {
    if constexpr (std::same_as<L, Between<int>>) return whole_number(limits);
    if constexpr (std::same_as<L, OneOf<int>>) return one_of(limits);
    return number("integer");
}
template <class L>
json rule(const std::uintmax_t&, const L&) {
    return {{"type", "integer"}, {"minimum", 0}};
}
template <std::floating_point T, class L>
json rule(const T&, const L& limits) {
    if constexpr (std::same_as<L, Between<T>>)
        return number("number", limits);
    else
        return number("number");
}
template <class L>
json rule(const std::string&, const L& limits) {
    if constexpr (std::same_as<L, OneOf<std::string>>)
        return one_of(limits);
    else
        return number("string");
}
template <class L>
json rule(const std::filesystem::path&, const L&) {
    return number("string");
}
template <class E, class L>
requires std::is_enum_v<E> json rule(const E&, const L&) {
    json names = json::array();
    for (const auto& [value, word] : words_of(E{})) names.push_back(word);
    return {{"enum", names}};
}
template <class T, std::size_t n, class L>
json rule(const std::array<T, n>&, const L& limits) {
    return array_of(rule(T{}, limits), int(n));
}
template <class L>
json rule(const Matrix&, const L&) {
    return array_of(number("number", Between<double>{-largest_entry, largest_entry}), 9);
}
template <class L>
json rule(const Point&, const L& limits) {
    return array_of(rule(double{}, limits), 2);
}
template <class L>
json rule(const Size&, const L&) {
    return array_of(whole_number({1, largest_side_px}), 2);
}
template <class L>
json rule(const Rect&, const L&) {
    if constexpr (std::same_as<L, AroundTheReference> || std::same_as<L, OnCanvas>)
        return array_of(whole_number({-largest_side_px, largest_side_px}), 4);
    else
        return array_of(side, 4);
}
template <class L>
json rule(const SharedFlex&, const L&) {
    const json far = number("number", Between<double>{-furthest_px, furthest_px});
    return object_of({{"first", array_of(far, 2)},
                      {"step_px", number("number", Between<double>{1, furthest_px})},
                      {"columns", {{"type", "integer"}, {"minimum", 1}}},
                      {"rows", {{"type", "integer"}, {"minimum", 1}}},
                      {"across_px", list_of(far)},
                      {"down_px", list_of(far)}},
                     {"first", "step_px", "columns", "rows", "across_px", "down_px"});
}
template <class L>
json rule(const SharedHotPixels&, const L&) {
    return list_of(array_of(side, 2));
}
template <class L>
json rule(const SharedSpots&, const L&) {
    return list_of(rule_of(SensorSpot{}));
}
template <class L>
json rule(const std::shared_ptr<const Raster16>&, const L&) {
    return number("string");
}
template <class L>
json rule(const Mask&, const L&) {
    return object_of({{"file", number("string")}, {"left", side}, {"top", side}}, {"file", "left", "top"});
}
template <class L>
json rule(const Profile&, const L&) {
    return {{"enum", {"profile.icc", "export.icc"}}};
}
template <class L>
json rule(const SharedFrameFile&, const L&) {
    json out = rule_of(FrameFile{});
    out["properties"]["from_root"] = number("string");
    return out;
}
template <class L>
json rule(const std::vector<Point>&, const L& limits) {
    return list_of(rule(Point{}, limits));
}
template <class T, class L>
json rule(const std::vector<T>&, const L&) {
    return list_of(rule_of(T{}));
}
template <HasFields T, class L>
json rule(const T& value, const L&) {
    return rule_of(value);
}
template <class T, class L>
json rule(const std::optional<T>&, const L& limits) {
    return rule(T{}, limits);
}

template <HasFields T>
json rule_of(const T& value) {
    json properties = json::object();
    std::vector<std::string> needed;
    fields(value, [&]<class M, class L>(std::string_view name, const M& member, const L& limits) {
        if constexpr (!std::same_as<L, FoundAnew>) {
            properties[std::string(name)] = rule(member, limits);
            if (std::same_as<L, Needed>) needed.emplace_back(name);
        }
    });
    return object_of(properties, needed);
}

}  // namespace

std::string pile_schema() {
    json out{
        {"$schema", "https://json-schema.org/draft/2020-12/schema"},
        {"title", "pile.json of a Bright Pile document"},
        {"description",
         "Fields that are not required are left out where they are as in a new pile; docs/pile-format.md says what "
         "they mean."}};
    json all = rule_of(Pile{});
    all["required"].push_back("format");
    all["required"].push_back("version");
    all["properties"]["format"] = {{"enum", {format_name}}};
    all["properties"]["version"] = {{"type", "integer"}, {"minimum", 1}};
    out.update(all);
    return out.dump(1) + "\n";
}

}  // namespace bp
