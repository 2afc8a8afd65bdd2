#include "shell/tones.h"

#include "shell/preferences.h"

#include <QApplication>
#include <QThreadPool>
#include <alsa/asoundlib.h>
#include <cmath>
#include <numbers>

namespace anvil::app {
namespace {

struct Note {
    double hertz, seconds; ///< 0 Hz: a rest
};

std::vector<Note> melodyOf(Tone tone) {
    switch (tone) {
    case Tone::armed:
        return {{660, 0.10}, {880, 0.14}};
    case Tone::look:
        return {{740, 0.12}, {0, 0.06}, {740, 0.12}};
    case Tone::nearLimit:
        return {{1180, 0.07}, {0, 0.04}, {1180, 0.07}, {0, 0.04}, {1180, 0.07}};
    case Tone::broke:
        return {{880, 0.09}, {440, 0.20}};
    case Tone::saved:
        return {{520, 0.08}, {660, 0.08}, {780, 0.16}};
    case Tone::notSaved:
        return {{300, 0.2}, {0, 0.06}, {300, 0.2}, {0, 0.06}, {220, 0.36}};
    }
    return {};
}

void silent(const char*, int, const char*, int, const char*, ...) {}

/// False where there is no sound device.
bool sound(const std::vector<std::int16_t>& samples) {
    snd_pcm_t* device = nullptr;
    if (snd_pcm_open(&device, "default", SND_PCM_STREAM_PLAYBACK, 0) < 0) return false;
    const bool ready = snd_pcm_set_params(device, SND_PCM_FORMAT_S16, SND_PCM_ACCESS_RW_INTERLEAVED, 1,
                                          toneRate, 1, 100000) >= 0;
    if (ready) {
        auto written = snd_pcm_writei(device, samples.data(), samples.size());
        if (written < 0) snd_pcm_recover(device, static_cast<int>(written), 1);
        snd_pcm_drain(device);
    }
    snd_pcm_close(device);
    return ready;
}

} // namespace

std::vector<std::int16_t> samplesOf(Tone tone) {
    constexpr double loud = 0.4, edge = 0.008; // share of full scale; s of fading in and out
    std::vector<std::int16_t> out;
    for (const auto& note : melodyOf(tone)) {
        const auto n = static_cast<int>(note.seconds * toneRate);
        for (int i = 0; i <= n; ++i) {
            const double t = static_cast<double>(i) / toneRate, left = note.seconds - t;
            const double fade = std::min({1.0, t / edge, std::max(0.0, left) / edge});
            out.push_back(static_cast<std::int16_t>(
                std::lround(32767 * loud * fade * std::sin(2 * std::numbers::pi * note.hertz * t))));
        }
    }
    return out;
}

void play(Tone tone) {
    if (!preferences::tones()) return;
    static const bool quiet = [] {
        snd_lib_error_set_handler(silent); // it tells the terminal about every device that is not there
        return true;
    }();
    static QThreadPool line; // one tone after the other
    line.setMaxThreadCount(quiet ? 1 : 2);
    line.start([samples = samplesOf(tone)] {
        if (!sound(samples))
            QMetaObject::invokeMethod(
                qApp, [] { QApplication::beep(); }, Qt::QueuedConnection);
    });
}

} // namespace anvil::app
