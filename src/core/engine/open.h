// From files to a pile.
#pragma once

#include <filesystem>
#include <vector>

#include "base/job.h"
#include "io/gather.h"
#include "pile/file.h"
#include "pile/pile.h"

namespace bp {

struct NamedFile {
    std::filesystem::path path;
    Role role = Role::scene;
};

enum class Order { captured, name, given };

// The files of what a person names, with roles: in a folder, the subfolders `darks` and `foreground` give frames of
// those roles.
Result<std::vector<NamedFile>> gather_run(const std::vector<std::string>& names, Inner inner = Inner::no);

// Reads all headers and capture data. The most common size of scene frames becomes the canvas; the working profile is
// the first usable frame's. A frame that cannot be used is kept in the pile with its problem. Fails when no frame can
// be used, or when the job is stopped. A pile whose files are known by path alone is not for saving.
Result<Pile> open_frames(const std::vector<NamedFile>& files, Outcome outcome, Order order, Job& job,
                         KnownBy known = KnownBy::content);

// The two halves of it: files read, and a pile made of what was read.
Result<std::vector<Frame>> read_frames(const std::vector<NamedFile>& files, KnownBy known, Job& job);
Result<Pile> pile_of(std::vector<Frame> frames, Outcome outcome, Order order);

// The note that reading leaves on a copy of the frame of this name, in English.
Saying copy_note(const std::string& name);

// What read frames become beside those of a pile: one of another size gets its problem; one whose content is in the
// pile already, or earlier among them, is set aside with a note that names the other.
std::vector<Frame> beside(const Pile& pile, std::vector<Frame> frames);

// What files become beside a pile whose canvas and profile stay; those that it already has are passed over.
Result<std::vector<Frame>> fresh_frames(const Pile& pile, const std::vector<NamedFile>& files, Job& job);
// Adds them.
Result<Pile> add_frames(const Pile& pile, const std::vector<NamedFile>& files, Job& job);

}  // namespace bp
