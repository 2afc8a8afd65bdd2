#pragma once

#include <QStringList>
#include <span>

namespace anvil::store {

/// "JAnv" in ASCII: marks the file as a project, whatever it is called.
inline constexpr int applicationId = 0x4A416E76;

/// As it was made up to version 8.
inline constexpr const char* attachmentTableOfOld =
    "CREATE TABLE attachment (id INTEGER PRIMARY KEY AUTOINCREMENT, pull INTEGER NOT NULL REFERENCES pull "
    "DEFERRABLE INITIALLY DEFERRED, at_s REAL, name TEXT NOT NULL, file INTEGER NOT NULL REFERENCES file "
    "DEFERRABLE INITIALLY DEFERRED)";

/// As version 2 brought it.
inline constexpr const char* setupTable =
    "CREATE TABLE setup (id INTEGER PRIMARY KEY AUTOINCREMENT, rig TEXT NOT NULL, version INTEGER NOT NULL, "
    "made_at TEXT NOT NULL, setup TEXT NOT NULL, UNIQUE (rig, version))";

/// A cache: readings of curves as store/reading_bytes.h lays them down.
inline constexpr const char* readingTable = "CREATE TABLE reading (curve INTEGER PRIMARY KEY REFERENCES "
                                            "curve, digest TEXT NOT NULL, reader INTEGER NOT "
                                            "NULL, checksum INTEGER NOT NULL, data BLOB NOT NULL)";

inline constexpr const char* sealTable =
    "CREATE TABLE seal (of TEXT NOT NULL, row INTEGER NOT NULL, checksum INTEGER NOT NULL, PRIMARY KEY (of, "
    "row)) WITHOUT ROWID";

/// What is no list of fields (store/fields.h): samples, kept files, the journal, seals and indices.
inline constexpr const char* tablesOfSamples[] = {
    "CREATE TABLE curve (id INTEGER PRIMARY KEY AUTOINCREMENT, samples INTEGER NOT NULL, digest TEXT NOT "
    "NULL, beside INTEGER REFERENCES curve)",
    "CREATE TABLE channel (curve INTEGER NOT NULL REFERENCES curve, number INTEGER NOT NULL, kind TEXT NOT "
    "NULL, unit TEXT NOT NULL, name TEXT NOT NULL DEFAULT '',"
    " PRIMARY KEY (curve, number)) WITHOUT ROWID",
    "CREATE TABLE chunk (id INTEGER PRIMARY KEY, curve INTEGER NOT NULL REFERENCES curve, channel INTEGER "
    "NOT NULL, sequence INTEGER NOT NULL,"
    " samples INTEGER NOT NULL, checksum INTEGER NOT NULL, data BLOB NOT NULL, packing INTEGER NOT NULL "
    "DEFAULT 0, UNIQUE (curve, channel, sequence))",
    "CREATE TABLE pyramid (curve INTEGER NOT NULL REFERENCES curve, level INTEGER NOT NULL, data BLOB NOT "
    "NULL, PRIMARY KEY (curve, level))",
    "CREATE TABLE file (id INTEGER PRIMARY KEY AUTOINCREMENT, name TEXT NOT NULL, digest TEXT NOT NULL "
    "UNIQUE, bytes INTEGER NOT NULL,"
    " data BLOB NOT NULL)",
    "CREATE TABLE journal (id INTEGER PRIMARY KEY AUTOINCREMENT, at TEXT NOT NULL, who TEXT NOT NULL, what "
    "TEXT NOT NULL, undoes INTEGER, changes TEXT NOT NULL)",
    "CREATE INDEX pull_specimen ON pull (specimen)",
    "CREATE INDEX specimen_study ON specimen (study)",
    "CREATE INDEX curve_digest ON curve (digest)",
    "CREATE INDEX curve_beside ON curve (beside)",
    sealTable,
    readingTable,
};

/// What brings a file of version i + 1 to version i + 2.
inline constexpr const char* toVersion2[] = {
    "ALTER TABLE option ADD COLUMN geometry TEXT NOT NULL DEFAULT ''",
    "ALTER TABLE specimen ADD COLUMN x_m REAL",
    "ALTER TABLE specimen ADD COLUMN y_m REAL",
    setupTable,
    "ALTER TABLE pull ADD COLUMN operator TEXT NOT NULL DEFAULT ''",
    "ALTER TABLE pull ADD COLUMN setup INTEGER REFERENCES setup DEFERRABLE INITIALLY DEFERRED",
    "ALTER TABLE pull ADD COLUMN outcome TEXT NOT NULL DEFAULT '{}'",
    "ALTER TABLE pull ADD COLUMN recording TEXT NOT NULL DEFAULT ''",
    "ALTER TABLE pull ADD COLUMN practice INTEGER NOT NULL DEFAULT 0",
};
inline constexpr const char* toVersion3[] = {
    "ALTER TABLE curve ADD COLUMN beside INTEGER REFERENCES curve",
    "ALTER TABLE channel ADD COLUMN name TEXT NOT NULL DEFAULT ''",
    "CREATE INDEX curve_beside ON curve (beside)",
    attachmentTableOfOld,
};
inline constexpr const char* toVersion4[] = {sealTable}; // its rows are made by sealAll
inline constexpr const char* toVersion5[] = {
    "ALTER TABLE chunk ADD COLUMN packing INTEGER NOT NULL DEFAULT 0"};
/// What broke, which end and what ended a pull were words in one text: they become fields of the outcome, the
/// old text is read once. "the splice, drew out": a part and how it failed.
inline constexpr const char* toVersion6[] = {
    "UPDATE pull SET outcome = json_set(outcome, '$.part', trim(substr(what_broke, 1, instr(what_broke || "
    "',', "
    "',') - 1))) WHERE what_broke <> '' AND what_broke <> 'Nothing broke'",
    "UPDATE pull SET outcome = json_set(outcome, '$.mode', trim(substr(what_broke, instr(what_broke, ',') + "
    "1))) "
    "WHERE instr(what_broke, ',') > 0",
    "UPDATE pull SET outcome = json_set(outcome, '$.end', CAST(substr(json_extract(outcome, '$.where'), 5) "
    "AS "
    "INTEGER)) WHERE json_extract(outcome, '$.where') GLOB 'end [1-9]*'",
    "UPDATE pull SET outcome = json_remove(outcome, '$.where') WHERE json_extract(outcome, '$.where') = 'end "
    "' || "
    "json_extract(outcome, '$.end')",
    "UPDATE pull SET outcome = json_set(outcome, '$.limited_by', CASE json_extract(outcome, '$.limited_by')"
    " WHEN 'rig topped out' THEN 'topped_out' WHEN 'stopped on purpose' THEN 'stopped'"
    " WHEN 'rig fell silent' THEN 'link_lost' WHEN 'set up wrongly' THEN 'wrong_setup'"
    " WHEN 'number lost' THEN 'lost' WHEN 'out of travel' THEN 'out_of_travel' WHEN 'it slipped' THEN "
    "'slipped'"
    " WHEN 'it tipped' THEN 'tipped' WHEN 'power gone' THEN 'power_gone'"
    " ELSE json_extract(outcome, '$.limited_by') END) WHERE json_extract(outcome, '$.limited_by') IS NOT "
    "NULL",
    "UPDATE pull SET outcome = json_set(outcome, '$.limited_by', 'topped_out') WHERE reason = 'The rig "
    "topped "
    "out.' AND json_extract(outcome, '$.limited_by') IS NULL",
    "UPDATE pull SET outcome = json_set(outcome, '$.marks', (SELECT json_group_array(CASE WHEN "
    "json_extract(value, '$.text') GLOB 'mark [0-9]*' THEN json_set(value, '$.text', '') ELSE json(value) "
    "END) "
    "FROM json_each(outcome, '$.marks'))) WHERE json_extract(outcome, '$.marks') IS NOT NULL",
    "ALTER TABLE pull DROP COLUMN what_broke",
};
/// Numbers that follow from an entry are computed and no longer kept beside it; keys of metrics are those of
/// the methods. A word beside a rating is the tester's note.
inline constexpr const char* toVersion7[] = {
    "UPDATE pull SET note = CASE note WHEN '' THEN '' ELSE note || char(10) END || (SELECT "
    "json_extract(value, '$[1]') FROM json_each(outcome, '$.entered.fields') WHERE json_extract(value, "
    "'$[0]') = 'why') WHERE json_extract(outcome, '$.entered.kind') = 'rating' AND EXISTS (SELECT 1 FROM "
    "json_each(outcome, '$.entered.fields') WHERE json_extract(value, '$[0]') = 'why')",
    "UPDATE pull SET metric = NULL, value = NULL, upper = NULL, as_typed = NULL WHERE json_extract(outcome, "
    "'$.entered.kind') IS NOT NULL",
    "UPDATE pull SET outcome = json_remove(outcome, '$.entered.kind', '$.entered.remarks', '$.more')",
    "UPDATE pull SET metric = CASE metric WHEN 'impact' THEN 'energy' WHEN 'shock' THEN 'peak_deceleration' "
    "WHEN 'successes' THEN 'success_rate' ELSE metric END WHERE metric IS NOT NULL",
    "UPDATE study SET metric = CASE metric WHEN 'impact' THEN 'energy' WHEN 'shock' THEN "
    "'peak_deceleration' WHEN 'successes' THEN 'success_rate' WHEN 'peak' THEN 'holding' ELSE metric END "
    "WHERE metric IN ('impact', 'shock', 'successes') OR (metric = 'peak' AND json_extract(plan, "
    "'$.method') = 'step-ladder')",
};
/// What a rig can do was typed into plans: it becomes a rig of its own, and the plan names it.
inline constexpr const char* toVersion8[] = {
    readingTable,
    "INSERT OR IGNORE INTO setup (rig, version, made_at, setup) SELECT 'Rig of study ' || id, 1, '', "
    "json_patch('{}', json_object('name', 'Rig of study ' || id, 'protocol', 'lines', 'rig_limit_N', "
    "json_extract(plan, '$.rig_limit_n'), 'cell_limit_N', json_extract(plan, '$.cell_limit_n'), 'travel_m', "
    "json_extract(plan, '$.travel_m'), 'path', CASE WHEN json_extract(plan, '$.ratio') IS NULL THEN NULL "
    "ELSE "
    "json_array(json_object('kind', 'plain', 'a', json_extract(plan, '$.ratio'), 'b', 1.0)) END)) FROM study "
    "WHERE coalesce(json_extract(plan, '$.rig_limit_n'), json_extract(plan, '$.cell_limit_n'), "
    "json_extract(plan, '$.travel_m')) IS NOT NULL",
    "UPDATE study SET plan = json_set(plan, '$.rig', 'Rig of study ' || id) WHERE "
    "coalesce(json_extract(plan, "
    "'$.rig_limit_n'), json_extract(plan, '$.cell_limit_n'), json_extract(plan, '$.travel_m')) IS NOT NULL",
    "UPDATE study SET plan = json_remove(plan, '$.rig_limit_n', '$.cell_limit_n', '$.ratio', '$.travel_m')",
    // What conditions set stood in their names, parted by these signs.
    "ALTER TABLE condition ADD COLUMN levels TEXT NOT NULL DEFAULT '[]'",
    "UPDATE condition SET levels = '[' || replace(json_quote(replace(replace(replace(name, ';', ','), '/', "
    "','), "
    "'+', ',')), ',', '\",\"') || ']' WHERE value IS NULL AND (instr(name, ',') OR instr(name, ';') OR "
    "instr(name, "
    "'/') OR instr(name, '+'))"};
inline constexpr const char* toVersion9[] = {
    "ALTER TABLE attachment ADD COLUMN marks TEXT NOT NULL DEFAULT '{}'"};
/// From version 9 on a column that is new needs no statement: it is its `since` in store/fields.cpp.
inline constexpr std::span<const char* const> migrations[] = {toVersion2, toVersion3, toVersion4, toVersion5,
                                                              toVersion6, toVersion7, toVersion8, toVersion9};

/// Everything a file of this version is made with.
QStringList schema();
/// What brings a file of `version` to the next one.
QStringList migrationFrom(int version);

} // namespace anvil::store
