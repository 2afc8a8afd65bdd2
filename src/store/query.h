// A query whose end is told from its failure.
#pragma once

#include <QSqlDatabase>
#include <QSqlError>
#include <QSqlQuery>
#include <QString>
#include <QVariant>
#include <anvil/domain/plan.h>
#include <anvil/quantity/error.h>
#include <string>

namespace anvil::store {

using domain::Id;

/// Runs a statement and walks its rows. A damaged page or a vanished disk ends the walk early, which
/// QSqlQuery::next() alone does not tell from the end: ask done() after every walk.
class Query {
public:
    explicit Query(const QSqlDatabase& db, const QString& sql, const QVariantList& values = {})
        : m_query(db) {
        m_query.setForwardOnly(true);
        m_ok = m_query.prepare(sql);
        for (const auto& v : values)
            m_query.addBindValue(v);
        m_ok = m_ok && m_query.exec();
    }

    /// The next row; false at the end and after a failure.
    bool next() {
        if (!m_ok) return false;
        const bool row = m_query.next();
        if (!row && m_query.lastError().isValid()) m_ok = false;
        return row;
    }
    /// What the database says went wrong, or empty.
    QString error() const { return m_ok ? QString() : m_query.lastError().text().simplified(); }
    /// Error, a sentence: the statement, or the walk so far, failed.
    Expected<void> done() const {
        if (m_ok) return {};
        return fail("The project cannot be read (" + error().toStdString() + ").");
    }

    QVariant value(int column) const { return m_query.value(column); }
    bool null(int column) const { return m_query.isNull(column); }
    Id id(int column) const { return m_query.value(column).toLongLong(); }
    int integer(int column) const { return m_query.value(column).toInt(); }
    QString string(int column) const { return m_query.value(column).toString(); }
    std::string text(int column) const { return string(column).toStdString(); }
    std::optional<double> number(int column) const {
        return null(column) ? std::nullopt : std::optional(m_query.value(column).toDouble());
    }
    const QSqlQuery& row() const { return m_query; } ///< as it stands
    QByteArray bytes(int column) const { return m_query.value(column).toByteArray(); }

private:
    QSqlQuery m_query;
    bool m_ok = false;
};

/// Calls `row(query)` for every row. Error: the walk did not come to its end.
template <class Row>
Expected<void> each(const QSqlDatabase& db, const QString& sql, const QVariantList& values, Row row) {
    Query q(db, sql, values);
    while (q.next())
        row(q);
    return q.done();
}

/// Everything read while it lives is of one instant, whatever is written meanwhile.
class Snapshot {
public:
    explicit Snapshot(const QSqlDatabase& db) : m_db(db), m_begun(m_db.transaction()) {}
    ~Snapshot() {
        if (m_begun) m_db.rollback();
    }
    Snapshot(const Snapshot&) = delete;
    Snapshot& operator=(const Snapshot&) = delete;

private:
    QSqlDatabase m_db;
    bool m_begun;
};

} // namespace anvil::store
