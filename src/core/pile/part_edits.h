// Edits of parts: painted, laid out as a sequence, ordered. Functions from one pile to the next; a part that is not in
// the pile changes nothing.
#pragma once

#include <span>
#include <string>
#include <utility>
#include <vector>

#include "align/moved.h"
#include "parts/shapes.h"
#include "parts/spacing.h"
#include "pile/pile.h"

namespace bp {

// An empty part from a frame, on top of the others; returns the pile and the new part's id.
std::pair<Pile, int> with_new_part(Pile pile, int frame);
Pile with_part_mask(Pile pile, int part, const Mask& mask);
// A meteor's mask as a soft band of the canvas, of the sky alone where there are zones.
Pile with_meteor_band(Pile pile, int part, const DrawnShape& band);
Pile with_part_join(Pile pile, int part, Join join);
Pile with_part_on(Pile pile, int part, bool on);
Pile with_part_strength(Pile pile, int part, double strength);
Pile with_part_edge(Pile pile, int part, Edge edge);
// The band in which a solved edge may run; 0: as the picture's size has it.
Pile with_part_band(Pile pile, int part, double band_px);
Pile with_part_look(Pile pile, int part, const Look& look);
// None: where its frame has it. A place that is none at all is kept within its limits.
Pile with_part_place(Pile pile, int part, std::optional<PartPlace> place);
// Moved on from where it lies; `change` leads from canvas to canvas, and moves, turns, scales and mirrors alone.
Pile with_part_placed_on(Pile pile, int part, const Matrix& change);
// Where a part lies against where its frame has it, in numbers: its middle, and turned and scaled about that. A part
// that shows nothing is told by the middle of the reference.
MovedBy moved_by(const Pile& pile, const Part& part);
Pile with_part_moved_to(Pile pile, int part, const MovedBy& by, bool mirrored);
// Whether any part is laid down at all.
bool shows_parts(const Pile& pile);
// Those that show, from the lowest to the highest.
std::vector<const Part*> showing_parts(const Pile& pile);
// The uppermost part that shows at a place of the canvas; null where none does.
const Part* part_at(const Pile& pile, Point canvas);
Pile with_part_name(Pile pile, int part, const std::string& name);
// Moves a part by `steps` places, up for positive ones.
Pile with_part_moved(Pile pile, int part, int steps);
Pile without_part(Pile pile, int part);

// Takes a place from a frame: its painted part, or a new one, keeps it too, and painted parts that lie above give it
// back. Not taken: the frame's part gives it back. With the id of the frame's part.
std::pair<Pile, int> with_taken(Pile pile, int frame, const Mask& place, bool take);

// Where a subject is in one frame: in pixels of the reference, level 0.
struct FoundPlace {
    int frame = 0;  // by id
    Mask mask;
};
using FoundSubject = std::vector<FoundPlace>;  // in the order of the run

// A part for every place of every subject, below all other parts, laid out by the pile's sequence settings; in place of
// those that were found before. What a person changed stays, and what was found anew in its place is not taken.
Pile with_subjects(Pile pile, std::span<const FoundSubject> found);
// The same for parts that were found, of any kind: those of the kind in place of the former, above all others.
Pile with_found_parts(Pile pile, PartOf kind, std::vector<Part> found);

// What a foreground frame gives, where it is lighter: all of the frame, or of the land while there are zones. As one
// part that is made once, and then switched off and on.
Pile with_foreground(Pile pile, int frame, bool on);
// That part; null while there is none.
const Part* foreground_part(const Pile& pile, int frame);

// The subjects of a pile from the first on, and whether any of their parts shows.
struct SubjectOf {
    int subject = 0;
    int parts = 0, shown = 0;
    friend bool operator==(const SubjectOf&, const SubjectOf&) = default;
};
std::vector<SubjectOf> subjects_of(const Pile& pile);

// The parts of a sequence, but for those that a person placed elsewhere, with their outlines: made once for a pile,
// asked as often as a slider moves.
class Sequence {
  public:
    explicit Sequence(const Pile& pile);

    // Shows as many parts of each subject that shows at all as lie `spacing` apart, in lengths of the subject, from its
    // first on; overlaps none.
    Pile spaced(Pile pile, double spacing) const;
    // Cuts between parts that show and cover each other: what both have goes to the one of which more lies nearer. One
    // that is covered as a whole is left out.
    Pile cut(Pile pile) const;
    // Leaves out what is covered: of the parts that show, from the uppermost down, those that meet none that stays.
    Pile solved(Pile pile) const;
    // Parts that show and cover each other in places, by their ids; the one that lies below first.
    std::vector<std::pair<int, int>> overlaps(const Pile& pile) const;

  private:
    bool cover_each_other(const Part& a, const Part& b) const;
    const Outline* outline_of(const Part& part) const;  // null for parts that do not show, or are of no sequence

    struct Place {
        int part = 0;
        int subject = 0;
        Outline outline;
    };
    std::vector<Place> places_;  // in the order of the run
};

// Shows every nth part of each subject that shows at all, from its first on.
Pile with_every(Pile pile, int nth);
// Takes a subject out of the picture, or in again as the pile's spacing has it.
Pile with_subject_on(Pile pile, int subject, bool on);
Pile with_on_top(Pile pile, OnTop on_top);

}  // namespace bp
