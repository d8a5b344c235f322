#include "io/clip_maker.h"

extern "C" {
#include <libavcodec/avcodec.h>
#include <libavformat/avformat.h>
#include <libavutil/opt.h>
}

#include <array>
#include <cmath>
#include <cstdio>
#include <memory>

namespace bp::io {
namespace {

template <auto free>
struct FreedBy {
    template <class T>
    void operator()(T* it) const {
        free(&it);
    }
};
struct FreeMuxer {
    void operator()(AVFormatContext* it) const { avformat_free_context(it); }
};
struct FreeBytes {
    void operator()(AVIOContext* it) const {
        av_freep(static_cast<void*>(&it->buffer));
        avio_context_free(&it);
    }
};

int write_bytes(void* to, std::uint8_t* bytes, int count) {
    return static_cast<ByteTarget*>(to)->write(reinterpret_cast<const char*>(bytes), count) ? count : AVERROR(EIO);
}
std::int64_t seek_to(void* in, std::int64_t to, int whence) {
    auto* target = static_cast<ByteTarget*>(in);
    if (whence == SEEK_CUR) to += std::int64_t(target->place());
    if ((whence != SEEK_SET && whence != SEEK_CUR) || to < 0) return AVERROR(EINVAL);
    return target->seek(std::uint64_t(to)) ? to : AVERROR(EIO);
}

// 1 to 100 in the encoder's own measure, where less is better.
std::array<char, 16> measure_of(int quality, bool webm) {
    const double worst = webm ? 56 : 44, best = 8;
    std::array<char, 16> out{};
    std::snprintf(out.data(), out.size(), "%ld", std::lround(worst + (best - worst) * (quality - 1) / 99.0));
    return out;
}

class Maker final : public ClipMaker {
  public:
    Maker(ByteTarget& target, const ClipMakerHead& head) : head_(head) {
        constexpr int buffer_bytes = 1 << 16;
        auto* buffer = static_cast<unsigned char*>(av_malloc(buffer_bytes));
        if (buffer) bytes_.reset(avio_alloc_context(buffer, buffer_bytes, 1, &target, nullptr, write_bytes, seek_to));
    }

    bool start() {
        AVFormatContext* muxer = nullptr;
        avformat_alloc_output_context2(&muxer, nullptr, head_.webm ? "webm" : "mp4", nullptr);
        muxer_.reset(muxer);
        const AVCodec* codec = avcodec_find_encoder_by_name(head_.webm ? "libvpx-vp9" : "libx264");
        if (!bytes_ || !muxer_ || !codec) return false;
        muxer_->pb = bytes_.get();
        muxer_->flags |= AVFMT_FLAG_BITEXACT;
        encoder_.reset(avcodec_alloc_context3(codec));
        frame_.reset(av_frame_alloc());
        packet_.reset(av_packet_alloc());
        stream_ = avformat_new_stream(muxer_.get(), nullptr);
        if (!encoder_ || !frame_ || !packet_ || !stream_) return false;
        const AVRational rate = av_d2q(head_.rate, 100000);
        encoder_->width = frame_->width = head_.width;
        encoder_->height = frame_->height = head_.height;
        encoder_->pix_fmt = AV_PIX_FMT_YUV420P;
        frame_->format = AV_PIX_FMT_YUV420P;
        encoder_->time_base = av_inv_q(rate);
        encoder_->framerate = stream_->avg_frame_rate = rate;
        encoder_->color_range = AVCOL_RANGE_MPEG;
        encoder_->color_primaries = AVCOL_PRI_BT709;
        encoder_->color_trc = AVCOL_TRC_IEC61966_2_1;
        encoder_->colorspace = AVCOL_SPC_BT709;
        encoder_->chroma_sample_location = AVCHROMA_LOC_LEFT;
        if (muxer_->oformat->flags & AVFMT_GLOBALHEADER) encoder_->flags |= AV_CODEC_FLAG_GLOBAL_HEADER;
        av_opt_set(encoder_->priv_data, "crf", measure_of(head_.quality, head_.webm).data(), 0);
        if (head_.webm) {
            encoder_->bit_rate = 0;
            av_opt_set(encoder_->priv_data, "deadline", "good", 0);
            av_opt_set(encoder_->priv_data, "cpu-used", "4", 0);
            av_opt_set(encoder_->priv_data, "row-mt", "1", 0);
        } else {
            av_opt_set(encoder_->priv_data, "preset", "veryfast", 0);
            // The camera stands still and a picture only grows: looking for what moved, and for which pictures could be
            // told by their neighbours, costs much of the encoder's time and finds nothing.
            av_opt_set(encoder_->priv_data, "x264-params", "subme=0:me=dia:partitions=none:bframes=7:b-adapt=0", 0);
        }
        encoder_->thread_count = 0;
        if (avcodec_open2(encoder_.get(), codec, nullptr) < 0 || av_frame_get_buffer(frame_.get(), 0) < 0) return false;
        frame_->color_range = AVCOL_RANGE_MPEG;
        if (avcodec_parameters_from_context(stream_->codecpar, encoder_.get()) < 0) return false;
        stream_->time_base = encoder_->time_base;
        return avformat_write_header(muxer_.get(), nullptr) >= 0;
    }
    bool begin(ClipPicture& room) override {
        if (av_frame_make_writable(frame_.get()) < 0) return false;
        room = {frame_->data[0],     frame_->data[1],     frame_->data[2],
                frame_->linesize[0], frame_->linesize[1], frame_->linesize[2]};
        return true;
    }
    bool add(int times) override {
        for (int i = 0; i < times; ++i) {
            frame_->pts = next_++;
            if (!encode(frame_.get())) return false;
        }
        return true;
    }
    bool finish() override {
        if (!encode(nullptr) || av_write_trailer(muxer_.get()) < 0) return false;
        avio_flush(bytes_.get());
        return bytes_->error >= 0;
    }

  private:
    // Null: what is still on its way.
    bool encode(const AVFrame* frame) {
        if (avcodec_send_frame(encoder_.get(), frame) < 0) return false;
        while (true) {
            const int got = avcodec_receive_packet(encoder_.get(), packet_.get());
            if (got == AVERROR(EAGAIN) || got == AVERROR_EOF) return true;
            if (got < 0) return false;
            packet_->duration = 1;
            av_packet_rescale_ts(packet_.get(), encoder_->time_base, stream_->time_base);
            packet_->stream_index = stream_->index;
            if (av_interleaved_write_frame(muxer_.get(), packet_.get()) < 0) return false;
        }
    }

    ClipMakerHead head_;
    std::unique_ptr<AVIOContext, FreeBytes> bytes_;
    std::unique_ptr<AVFormatContext, FreeMuxer> muxer_;
    std::unique_ptr<AVCodecContext, FreedBy<avcodec_free_context>> encoder_;
    std::unique_ptr<AVFrame, FreedBy<av_frame_free>> frame_;
    std::unique_ptr<AVPacket, FreedBy<av_packet_free>> packet_;
    AVStream* stream_ = nullptr;
    std::int64_t next_ = 0;
};

}  // namespace
}  // namespace bp::io

extern "C" __attribute__((visibility("default"))) bp::io::ClipMaker* bright_pile_open_clip_maker(
    bp::io::ByteTarget* target, const bp::io::ClipMakerHead* head) {
    try {
        av_log_set_level(AV_LOG_QUIET);
        auto maker = std::make_unique<bp::io::Maker>(*target, *head);
        return maker->start() ? maker.release() : nullptr;
    } catch (...) {
        return nullptr;
    }
}
