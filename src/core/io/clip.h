// Clips: files of many frames (OpenCV videoio, FFmpeg behind it).
//
// A frame of a clip has a name of its own, the clip's with # and its number from 0 ("harbour.mp4#120"), and is a frame
// like any other: every reader takes such names. Decoded frames are kept as PNG in the cache folder, because a clip can
// only be gone through from its begin; emptying that folder costs time and nothing else.
#pragma once

#include <cstdint>
#include <filesystem>
#include <optional>
#include <vector>

#include "base/job.h"
#include "image/geometry.h"
#include "io/capture.h"

namespace bp {

struct ClipFacts {
    Size size;
    double rate = 0;   // frames a second
    long frames = 0;   // as its header says
    double begin = 0;  // seconds since 1970: the file's last change less its length
};
Result<ClipFacts> probe_clip(const std::filesystem::path& clip);

struct ClipFrame {
    std::filesystem::path clip;
    long number = 0;  // from 0
};
std::filesystem::path name_of_clip_frame(const ClipFrame& frame);
std::optional<ClipFrame> clip_frame_of(const std::filesystem::path& name);

// The numbers of `rate` frames a second between two moments, at most as many as there are.
std::vector<long> pick_frames(const ClipFacts& facts, double from_s, double to_s, double rate);

// Decodes these frames (rising numbers) in one pass, unless they are in the cache. Stops with the job. When the clip
// ends before the last of them, those before are in the cache all the same.
Status unroll_clip(const std::filesystem::path& clip, const std::vector<long>& numbers, Job& job);

// Frames that are kept decoded take no more than this, at first 2 GiB: those of clips that were used longest ago go
// first, and those of clips that this process has used stay whatever they take. Holds when frames are decoded, and at
// the next sweep. Any thread.
void limit_clip_frames(std::uint64_t bytes);
void sweep_clip_frames();

// The file that holds the frame's pixels, decoded when it is not in the cache. Any thread.
Result<std::filesystem::path> pixels_of_clip_frame(const ClipFrame& frame);
// Tells a frame by the clip's content and its number.
Result<std::string> hash_of_clip_frame(const ClipFrame& frame);
CaptureData capture_of_clip_frame(const ClipFrame& frame);

}  // namespace bp
