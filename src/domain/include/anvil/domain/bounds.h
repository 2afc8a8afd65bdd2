// What a stored or typed number may be at most. Beyond these it is damage or a slip, and is refused with a
// sentence; see docs/file-format.md.
#pragma once

#include <anvil/quantity/error.h>

namespace anvil::domain {

struct StudyData;

namespace bounds {

inline constexpr double value = 1e100;      ///< of any quantity, SI; its square can still be computed
inline constexpr double margin = 10;        ///< the smallest difference that matters, as a share; above 0
inline constexpr double spread = 10;        ///< a coefficient of variation, as a share; at least 0
inline constexpr int replicates = 1000;     ///< planned in one square
inline constexpr int replicate = 1'000'000; ///< the number of a piece in its square
inline constexpr int joints = 100;          ///< on one piece
inline constexpr int repeats = 1000;        ///< of one step of a recipe
inline constexpr double minutes = 5.3e6;    ///< of a step or a wait: ten years
inline constexpr double ratio = 1e6;        ///< N at the specimen for each N at the cell
inline constexpr int position = 1'000'000;  ///< of an option, condition or study among its like
inline constexpr long long samples = 4'000'000'000;   ///< of one curve
inline constexpr int channels = 64;                   ///< of one curve
inline constexpr long long fileBytes = 2'000'000'000; ///< of one kept file, unpacked

} // namespace bounds

/// Whether everything in a study points to something in it and every number is within its bounds, so that
/// nobody has to ask again. Error: a sentence that names the first thing that does not.
Expected<void> validate(const StudyData& data);

} // namespace anvil::domain
