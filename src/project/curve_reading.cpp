#include <anvil/project/curve_reading.h>

#include <algorithm>
#include <atomic>
#include <chrono>
#include <mutex>
#include <thread>

namespace anvil::project {
namespace {

constexpr std::size_t fewest = 16; // below that a thread costs more than it brings

CurveRead readOne(const store::Project& file, const CurveToRead& what) {
    const auto samples = file.curve(what.curve);
    if (!samples) return {what, tl::unexpected(samples.error())};
    return {what, curve::read(*samples, what.settings)};
}

} // namespace

std::vector<CurveRead> readCurves(const store::Project& file, const std::vector<CurveToRead>& curves,
                                  const std::function<bool(std::size_t)>& go) {
    std::vector<CurveRead> out;
    out.reserve(curves.size());
    if (curves.size() < fewest) {
        for (const auto& what : curves) {
            out.push_back(readOne(file, what));
            if (go && !go(out.size())) break;
        }
        return out;
    }
    std::atomic<std::size_t> next{0}, running{0};
    std::atomic<bool> stop{false};
    std::mutex mutex;
    const auto worker = [&] {
        for (std::size_t i = next++; i < curves.size() && !stop; i = next++) {
            auto one = readOne(file, curves[i]);
            const std::lock_guard lock(mutex);
            out.push_back(std::move(one));
        }
        file.leaveThread();
        --running;
    };
    std::vector<std::jthread> threads;
    const auto count = std::clamp(std::thread::hardware_concurrency(), 1U, 8U);
    running = count;
    for (unsigned k = 0; k < count; ++k)
        threads.emplace_back(worker);
    while (running > 0) {
        std::this_thread::sleep_for(std::chrono::milliseconds(5));
        std::size_t done = 0;
        {
            const std::lock_guard lock(mutex);
            done = out.size();
        }
        if (go && !go(done)) stop = true;
    }
    threads.clear();
    return out;
}

} // namespace anvil::project
