// Commands that make studies of others, and the study of rig checks.
#pragma once

#include <anvil/project/open_project.h>

namespace anvil::project {

/// What a study begins with.
struct NewStudy {
    QString question, title; ///< a title, or it is made of the question
    std::string method;      ///< its key; empty: not said yet
    QStringList options;     ///< names; empty ones are left out
    QStringList conditions;  ///< likewise; none: one that says nothing
    int replicates = 0;      ///< of each; 0: not planned yet
};
/// The study as it would be, kept nowhere: for showing what it could tell. Error: a sentence about what
/// cannot be, such as two options of one name.
Expected<domain::StudyData> studyFrom(const NewStudy& study);
/// Makes it at the end of the project; one undo takes all of it back.
Expected<Id> planStudy(OpenProject& project, const NewStudy& study);

/// A study with the same options and plan, without pieces; conditions are taken over too unless another
/// is named.
Expected<Id> startFrom(OpenProject& project, Id study, const QString& title, const QString& condition);

/// Plans more replicates of some squares of a study that has been pulled.
Expected<void> planMore(OpenProject& project, Id study, const std::vector<std::pair<Id, Id>>& squares,
                        int more);

/// A study of its own for what another left open: the options and conditions of these squares, `more`
/// pieces of each, the other squares struck out. Error: no title, or no square.
Expected<Id> followUpStudy(OpenProject& project, Id study, const QString& title,
                           const std::vector<std::pair<Id, Id>>& squares, int more);

/// A fresh piece in the study of rig checks, which is made with the first: a rigid bar pulled on the rig
/// of this name, to learn how much the rig gives way. Returns the specimen.
Expected<Id> addRigCheckPiece(OpenProject& project, const std::string& rig);

} // namespace anvil::project
