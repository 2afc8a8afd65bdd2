// A number that is off its fellows as if another unit had been meant.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/methods/method.h>
#include <anvil/quantity/entry.h>
#include <optional>
#include <string>

namespace anvil::results {

/// How a number stands to the others of its square.
struct Unlikely {
    double times = 1;   ///< to the median of its fellows; below one: it is less
    double fellows = 0; ///< that median, SI
    const quantity::Unit* meant =
        nullptr; ///< the unit in which the same digits would lie among them; null: none
};

/// Looks whether what was typed lies among its fellows. Something about it is odd where it is ten times off
/// their median either way, or off by the ratio of two units that are mixed up (4.448 N to the lbf, 9.807 N
/// to the kgf, 1.356 N·m to the ft·lbf, 25.4 mm to the inch, a thousand) to within 5 %: then it should be
/// asked about before it is kept. `fellows`: values of the same square and metric, SI. Nothing without
/// fellows.
std::optional<Unlikely> unlikely(const quantity::Entry& typed, std::vector<double> fellows);

/// The same of a row of a table that somebody else wrote: stricter, since nobody sits there to be asked. Two
/// fellows or more that agree with each other, off them by the ratio of two units, and a unit that fits; a
/// ratio that a weak piece may have as well (below 25) only where the fellows stand in `theirs`, the unit
/// that fits.
std::optional<Unlikely> unlikelyRow(const quantity::Entry& told, const std::vector<double>& fellows,
                                    const quantity::Unit* theirs);

/// The same digits, bounds and doubt in the unit that was meant; one without an offset, as `typed.unit` is.
quantity::Entry asMeant(const quantity::Entry& typed, const quantity::Unit& meant);

/// What stands between display and piece for the number that is compared; empty: nothing.
using Through = std::optional<domain::ReadThrough>;
/// What was typed in the square of a piece so far, SI, as a display behind `through` would have shown it:
/// read off a display, for a metric; under an input of a form.
std::vector<double> fellowsOf(const domain::StudyData& data, domain::Id specimen, domain::Metric metric,
                              const Through& through = {});
std::vector<double> fellowsOf(const domain::StudyData& data, domain::Id specimen, const methods::Input& input,
                              const std::string& key, const Through& through = {});

} // namespace anvil::results
