// The solved edges of parts: derived data, solved at one level whatever level is looked at.
#pragma once

#include <map>

#include "engine/part_rows.h"

namespace bp {

// By the part's id.
using SolvedEdges = std::map<int, SharedEdge>;

// The level that edges of a pile are solved at.
int level_of_edges(const Pile& pile);
// Canvas pixels of that level that solving one looks at.
Rect box_of_edge(const Pile& pile, const Part& part);
// What an edge depends on: the base, the part, and the parts below it that reach into its box.
Fingerprint recipe_of_edge(const Pile& pile, const Part& part);
// Under which it is kept.
Fingerprint key_of_edge(const Pile& pile, const Part& part);

// The edge of a part that is alone as `own` and below which lies `below`, both of box_of_edge(). A blended one changes
// its light by factors that lie smoothly between those that lead over to what is below along the border. Pure.
SolvedEdge solved_edge(const Pile& pile, const Part& part, const PartAlone& own, const Raster16& below);

void pack(Packer& to, const SolvedEdge& edge);
void unpack(Unpacker& from, SolvedEdge& edge);

}  // namespace bp
