// Reading many curves at once, on several threads.
#pragma once

#include <QString>
#include <anvil/curve/reading.h>
#include <anvil/store/project.h>
#include <functional>
#include <vector>

namespace anvil::project {

using domain::Id;

/// A curve that is to be read, and how.
struct CurveToRead {
    Id pull = 0, curve = 0;
    curve::ReadingSettings settings;
    QString digest; ///< of its samples; empty: its reading is not to be kept
};

struct CurveRead {
    CurveToRead what;
    Expected<curve::Reading> reading;
};

/// Reads curves of a project; any thread may call it, and it waits for its own. `go` is told how many are
/// done and stops the rest by giving false; it is called from the calling thread. Returns what was read, in
/// no order.
std::vector<CurveRead> readCurves(const store::Project& file, const std::vector<CurveToRead>& curves,
                                  const std::function<bool(std::size_t done)>& go = {});

} // namespace anvil::project
