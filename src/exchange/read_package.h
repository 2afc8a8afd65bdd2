// A package being read, table by table.
#pragma once

#include "columns.h"
#include "folder.h"
#include "rows.h"
#include <anvil/exchange/package.h>
#include <anvil/methods/method.h>
#include <set>

namespace anvil::exchange {

/// What one study is made of, by name.
struct Names {
    std::map<std::string, Id> options, conditions, specimens, pulls;
    bool optionsTold = false, conditionsTold = false; ///< in a table of their own
    std::set<Id> standingTold;                        ///< pulls whose standing was said
    std::map<std::pair<Id, Id>, int> lastReplicate;   ///< by option and condition
};

class PackageReader {
public:
    explicit PackageReader(Folder folder) : m_folder(std::move(folder)) {}
    Expected<Package> read();

private:
    void studies();
    void goals();
    void options();
    void conditions();
    void specimens();
    void setups();
    void pulls();
    void inputs();
    void forecasts();
    void references();
    void criteria();
    void attachments();
    void standings();
    void unknowns();

    // read_goal.cpp
    void goal(const Row& row, domain::StudyData& data);
    void metric(const Row& row, domain::Study& study);
    void wanted(const Row& row, domain::Goal& goal);
    std::optional<domain::Criterion> criterion(const Row& row, const domain::StudyData& owner);
    domain::Id conditionOf(const Row& row, const domain::StudyData& of);

    // The study of a row, and its names; null with trouble.
    domain::StudyData* studyOf(const Row& row, std::string_view column = "study");
    Names& names(const domain::StudyData& data) { return m_names[data.study.id]; }
    Id option(const Row& row, domain::StudyData& data, std::string_view column = "option");
    Id condition(const Row& row, domain::StudyData& data);
    void outcome(const Row& row, domain::Pull& pull);
    void standing(const Row& row, Names& names, domain::Pull& pull);
    void curveOf(const Row& row, domain::Pull& pull);
    void typedOf(const Row& row, const domain::StudyData& data, domain::Pull& pull);
    Id keep(const Row& row, std::string_view column, const QString& name);

    // read_inputs.cpp
    void input(const Row& row, domain::StudyData& data);
    void ofSpecimen(const Row& row, const methods::Method& method, domain::Specimen& piece);
    void ofPull(const Row& row, const methods::Method& method, domain::Pull& pull);

    Folder m_folder;
    Trouble m_trouble;
    Package m_out;
    std::map<std::string, std::size_t> m_studies; ///< by title
    std::map<Id, Names> m_names;
    std::map<std::string, Id> m_kept; ///< files of the package
    std::set<std::string> m_curves;   ///< and its curves, by their paths
    Id m_options = 0, m_conditions = 0, m_specimens = 0, m_pulls = 0, m_attachments = 0;
};

/// Whether an input of a specimen is a length that was measured, which is kept as a reading.
bool isMeasure(const methods::Input& input, const std::string& text);

} // namespace anvil::exchange
