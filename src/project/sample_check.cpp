#include <anvil/project/sample_check.h>

#include <sys/resource.h>

namespace anvil::project {

namespace {
constexpr int backstage = 15; // of 19: behind everything a person waits for
}

SampleCheck::SampleCheck(const store::Project& file, std::vector<Id> curves, QObject* parent)
    : QObject(parent), m_file(file), m_curves(std::move(curves)) {}

void SampleCheck::begin() {
    m_thread = std::thread([this] {
        setpriority(PRIO_PROCESS, 0, backstage); // of this thread alone, on Linux
        m_file.verifySamples(m_curves, [this](Id curve, const Expected<void>& ok) {
            if (!ok) emit damaged(curve, QString::fromStdString(ok.error().message));
            return !m_stop;
        });
        if (!m_stop) emit finished();
    });
}

SampleCheck::~SampleCheck() {
    m_stop = true;
    if (m_thread.joinable()) m_thread.join();
}

} // namespace anvil::project
