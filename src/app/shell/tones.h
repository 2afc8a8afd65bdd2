// Short tones at the rig, for somebody who looks at the piece and not at the screen.
#pragma once

#include <cstdint>
#include <vector>

namespace anvil::app {

/// What a tone says; each has a melody of its own.
enum class Tone { armed, look, nearLimit, broke, saved, notSaved };

/// The samples of a tone, mono at `toneRate` a second; it begins and ends silently, so that it does not
/// click.
inline constexpr int toneRate = 22050;
std::vector<std::int16_t> samplesOf(Tone tone);

/// Plays a tone beside whatever else goes on; the desktop's beep where there is no sound device. Off by the
/// setting "rig/tones".
void play(Tone tone);

} // namespace anvil::app
