#include "io/exr_library.h"

#include <ImfChannelList.h>
#include <ImfFrameBuffer.h>
#include <ImfIO.h>
#include <ImfOutputFile.h>
#include <ImfStandardAttributes.h>
#include <half.h>

#include <memory>
#include <stdexcept>
#include <vector>

namespace bp::io {
namespace {

class Stream final : public Imf::OStream {
  public:
    explicit Stream(ByteTarget& target) : Imf::OStream("picture"), target_(target) {}
    void write(const char bytes[], int count) override {
        if (!target_.write(bytes, count)) throw std::runtime_error("not written");
    }
    std::uint64_t tellp() override { return target_.place(); }
    void seekp(std::uint64_t to) override {
        if (!target_.seek(to)) throw std::runtime_error("not written");
    }

  private:
    ByteTarget& target_;
};

class Rows final : public ExrRows {
  public:
    Rows(ByteTarget& target, const ExrHead& head)
        : head_(head), stream_(target), halves_(std::size_t(head.width) * std::size_t(head.channels)) {
        Imf::Header header(head.width, head.height, 1, Imath::V2f(0, 0), float(head.width), Imf::INCREASING_Y,
                           Imf::ZIP_COMPRESSION);
        const Imf::PixelType type = head.half ? Imf::HALF : Imf::FLOAT;
        for (const char* name : names()) header.channels().insert(name, Imf::Channel(type));
        const float* p = head.primaries;
        Imf::addChromaticities(header, Imf::Chromaticities({p[0], p[1]}, {p[2], p[3]}, {p[4], p[5]}, {p[6], p[7]}));
        if (head.dpi > 0) Imf::addXDensity(header, float(head.dpi));
        file_ = std::make_unique<Imf::OutputFile>(stream_, header);
    }
    bool write(const float* row) override {
        try {
            const std::size_t size = head_.half ? sizeof(half) : sizeof(float);
            const char* from = reinterpret_cast<const char*>(row);
            if (head_.half) {
                for (std::size_t i = 0; i < halves_.size(); ++i) halves_[i] = half(row[i]);
                from = reinterpret_cast<const char*>(halves_.data());
            }
            Imf::FrameBuffer buffer;
            std::size_t channel = 0;
            // Every row lies where the next one is written from.
            for (const char* name : names())
                buffer.insert(
                    name, Imf::Slice(head_.half ? Imf::HALF : Imf::FLOAT, const_cast<char*>(from) + channel++ * size,
                                     size * std::size_t(head_.channels), 0));
            file_->setFrameBuffer(buffer);
            file_->writePixels(1);
            return true;
        } catch (...) {
            return false;
        }
    }
    bool finish() override {
        try {
            file_.reset();
            return true;
        } catch (...) {
            return false;
        }
    }

  private:
    std::vector<const char*> names() const {
        return head_.channels == 1 ? std::vector<const char*>{"Y"} : std::vector<const char*>{"R", "G", "B"};
    }

    ExrHead head_;
    Stream stream_;
    std::vector<half> halves_;
    std::unique_ptr<Imf::OutputFile> file_;
};

}  // namespace
}  // namespace bp::io

extern "C" __attribute__((visibility("default"))) bp::io::ExrRows* bright_pile_open_exr(bp::io::ByteTarget* target,
                                                                                        const bp::io::ExrHead* head) {
    try {
        return new bp::io::Rows(*target, *head);
    } catch (...) {
        return nullptr;
    }
}
