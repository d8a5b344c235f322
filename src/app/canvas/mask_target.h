// What can be painted: a mask that strokes go on from and that is written when they end.
#pragma once

#include <QString>
#include <functional>
#include <optional>

#include "app/work/studio.h"
#include "parts/brush.h"

namespace bp::app {

class MaskTarget {
  public:
    virtual ~MaskTarget() = default;
    // A stroke begins: the mask, in pixels of the canvas, that it goes on from. None where nothing can be painted, of
    // which the person has been told.
    virtual std::optional<Mask> begin() { return read(); }
    // The same as it is now: a stroke on what is no more so is given up.
    virtual Mask read() const = 0;
    // The stroke goes on. True when the picture itself shows it, false when it is to be hatched.
    virtual bool try_out(const Mask& /*mask*/, const Rect& /*changed*/) { return false; }
    virtual void give_up() {}
    // The stroke has come to its end: one step that can be undone.
    virtual void write(const Mask& mask, const Brush& brush) = 0;
    // What is hatched while no stroke goes on; null for nothing.
    virtual const Mask* hatched() const = 0;
};

// A mask that is part of the pile: how it is read, how it is written, and the words for a step of the history.
class PileMask final : public MaskTarget {
  public:
    using Read = std::function<const Mask*(const Pile&)>;
    using Write = std::function<Pile(Pile, Mask)>;
    using Words = std::function<QString(const Brush&)>;
    PileMask(Studio& studio, Read read, Write write, Words words)
        : studio_(studio), read_(std::move(read)), write_(std::move(write)), words_(std::move(words)) {}

    Mask read() const override {
        const Mask* mask = hatched();
        return mask ? *mask : Mask(studio_.pile().size);
    }
    void write(const Mask& mask, const Brush& brush) override {
        studio_.document().edit(write_(studio_.pile(), mask), words_(brush));
    }
    const Mask* hatched() const override {
        const Mask* mask = read_(studio_.pile());
        return mask && !mask->empty() ? mask : nullptr;
    }

  private:
    Studio& studio_;
    Read read_;
    Write write_;
    Words words_;
};

}  // namespace bp::app
