// Looking at stored samples behind what is shown: readings that were kept are shown at once, and their
// samples are read against their checksums afterwards.
#pragma once

#include <QObject>
#include <QString>
#include <anvil/store/project.h>
#include <atomic>
#include <thread>

namespace anvil::project {

using domain::Id;

class SampleCheck : public QObject {
    Q_OBJECT
public:
    /// `file` must outlive it.
    SampleCheck(const store::Project& file, std::vector<Id> curves, QObject* parent = nullptr);
    ~SampleCheck() override; ///< stops it, and waits
    /// Begins, once, on a thread of its own, which gives way to others.
    void begin();

signals:
    /// The samples of a curve are not as they were recorded; a sentence.
    void damaged(long long curve, const QString& why);
    void finished();

private:
    const store::Project& m_file;
    std::vector<Id> m_curves;
    std::atomic<bool> m_stop{false};
    std::thread m_thread;
};

} // namespace anvil::project
