// Goes through the frames of a run for what stands out in them. Internal to the engine's moving lights.
#pragma once

#include <mutex>
#include <vector>

#include "engine/in_step.h"
#include "lights/excess.h"
#include "lights/traces.h"

namespace bp {

// Deviations of the noise: for lights one by one, and for what many pixels in a line have together.
constexpr double least_deviations = 4, least_of_streaks = 3;
// Deviations are kept in quarters.
constexpr int quarters = 4;

// What stands out of the rows of a picture, by frame: `least` deviations and more.
class Standing {
  public:
    Standing(std::size_t frames, Size size, double least);

    // `rows` of all frames, from column `left` on. Any thread.
    void look(int y, int left, kernels::Rows<std::uint16_t> rows, int width);
    // Forgets what was seen of some frames, whose rows then come again.
    void forget(const std::vector<std::size_t>& frames);
    // Rows of these frames, held against what was usual at the same pixels when all were looked at.
    void look_again(int y, int left, const std::vector<std::size_t>& frames, kernels::Rows<std::uint16_t> rows,
                    int width);
    // By frame, row by row.
    std::vector<std::vector<Bright>> by_frame();

  private:
    struct Row {
        std::vector<Excess> found;
        UsualRow usual;
    };
    void add(int y, int left, int width, std::vector<Excess>& found);

    std::size_t frames_;
    double least_;
    std::mutex mutex_;
    std::vector<Row> rows_;
};

// Collects what stands out, row by row, and a smaller picture of every frame to look for lines in.
class Looking final : public StepWork {
  public:
    // Rows of brightness: one channel.
    Looking(std::size_t frames, Size size);

    void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) override;
    // From here on rows of these frames alone come again.
    void again(const std::vector<std::size_t>& frames);

    // What stands out, by frame.
    std::vector<std::vector<Bright>> lights() { return lights_.by_frame(); }
    // The same in the small pictures, which are so many times half as large.
    std::vector<std::vector<Bright>> small_lights() const;
    Size small() const { return small_; }
    int coarser() const { return coarser_; }
    // That is held at once.
    static std::size_t bytes(std::size_t frames, Size size);

  private:
    void add_to_small(int y, kernels::Span columns, const std::vector<const std::uint16_t*>& rows);

    std::size_t frames_;
    std::vector<std::size_t> coming_;  // frames whose rows come
    Size size_;
    int coarser_;
    Size small_;
    Standing lights_;
    std::mutex mutex_;
    std::vector<std::vector<std::uint32_t>> sums_;  // of the small pictures' pixels
};

}  // namespace bp
