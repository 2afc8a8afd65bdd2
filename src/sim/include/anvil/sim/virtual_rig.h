// A rig that is not there: an unloaded reading until it is told to pull, then one virtual specimen after the
// other. Free of clocks and sockets: whoever runs it says how much time has gone by.
#pragma once

#include <anvil/sim/specimen.h>
#include <deque>
#include <string_view>

namespace anvil::sim {

struct RigOptions {
    Model model = Model::pullOut;
    double strength = 2000;     ///< N, mean of the specimens
    double cv = 0.05;           ///< their spread
    Logger logger;              ///< rate, speed, noise, offset, limit …
    std::vector<double> legs{}; ///< shares of the load that further cells see; each relaxes at its own pace
    std::uint64_t seed = 1;
};

/// One line of what the rig says, SI.
struct RigReading {
    double time = 0, load = 0, travel = 0;
    std::vector<double> legs{}; ///< N, one for each further cell
};

class VirtualRig {
public:
    explicit VirtualRig(const RigOptions& options);

    /// What was read while so many seconds went by; at most a second's worth at once.
    std::vector<RigReading> advance(double seconds);

    // What a script or a program may tell it.
    void pull();         ///< the next specimen, from its slack on
    void stop();         ///< the crosshead stands still: the load relaxes a little
    void pause(bool on); ///< the crosshead waits under load, which relaxes, and goes on later
    void release();      ///< off the hook: unloaded again
    void zero();         ///< the amplifier takes the present offset away
    void drift(double perSecond) { m_drift = perSecond; } ///< N/s from now on
    void spike(int count) { m_spikes += count; }          ///< so many of the next samples are spikes
    void shiftClock(double by) { m_clock += by; }
    void setModel(Model model) { m_options.model = model; }
    void setStrength(double newtons) { m_options.strength = newtons; }

    bool pulling() const { return m_at < m_run.curve.load.size(); }
    int pulls() const { return m_pulls; }
    std::size_t legs() const { return m_options.legs.size(); }
    /// Of the specimen pulled last.
    const Truth& truth() const { return m_run.truth; }

private:
    RigReading unloaded();
    RigReading complete(RigReading reading);
    RigOptions m_options;
    Random m_random;
    Run m_run;
    std::size_t m_at = 0; ///< next sample of the run; its size: none is left
    double m_clock = 0, m_due = 0, m_held = 0, m_heldFor = 0, m_place = 0;
    double m_offset = 0, m_drift = 0, m_drifted = 0;
    int m_pulls = 0, m_spikes = 0;
    bool m_paused = false;
};

} // namespace anvil::sim
