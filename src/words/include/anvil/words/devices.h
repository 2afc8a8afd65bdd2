// Devices of hauling systems, in words.
#pragma once

#include <anvil/results/devices.h>
#include <anvil/words/table.h>

namespace anvil::words {

/// Which device passes on most, and where it belongs.
std::vector<std::string> deviceSentences(const domain::StudyData& data, const results::DeviceStudy& study);
/// A row a device: efficiency, its standard error, what it cannot be told apart from.
Table deviceTable(const results::DeviceStudy& study);
/// A row a reeving: measured, and as its devices would have it.
Table reevingTable(const domain::StudyData& data, const results::DeviceStudy& study);
/// A row an order of the same devices, best first.
Table orderTable(const results::DeviceStudy& study);
/// "ring, roller", the nearest to the input first.
std::string devicesText(const methods::Reeving& reeving);

} // namespace anvil::words
