// Statements that are prepared once for as long as a transaction goes on: a package has tens of thousands of
// rows that are written alike.
#pragma once

#include <QSqlDatabase>
#include <QSqlError>
#include <QSqlQuery>
#include <QVariant>
#include <anvil/quantity/error.h>
#include <map>

namespace anvil::store {

/// One walk of a prepared statement; it is given back when this goes.
class Prepared {
public:
    Prepared(QSqlQuery& query, bool ready, const QVariantList& values) : m_query(query) {
        for (qsizetype i = 0; i < values.size(); ++i)
            m_query.bindValue(static_cast<int>(i), values[i]);
        m_ok = ready && m_query.exec();
    }
    ~Prepared() { m_query.finish(); }
    Prepared(const Prepared&) = delete;
    Prepared& operator=(const Prepared&) = delete;

    /// The next row; false at the end and after a failure.
    bool next() {
        const bool row = m_ok && m_query.next();
        if (m_ok && !row && m_query.lastError().isValid()) m_ok = false;
        return row;
    }
    bool ok() const { return m_ok; }
    QString error() const { return m_query.lastError().text().simplified(); }
    const QSqlQuery& query() const { return m_query; }

private:
    QSqlQuery& m_query;
    bool m_ok;
};

/// Must go before its connection does.
class Statements {
public:
    explicit Statements(const QSqlDatabase& db) : m_db(db) {}
    Prepared run(const QString& sql, const QVariantList& values) {
        auto at = m_all.find(sql);
        if (at == m_all.end()) {
            at = m_all.emplace(sql, One{QSqlQuery(m_db), false}).first;
            at->second.query.setForwardOnly(true);
            at->second.ready = at->second.query.prepare(sql);
        }
        return Prepared(at->second.query, at->second.ready, values);
    }

private:
    struct One {
        QSqlQuery query;
        bool ready;
    };
    QSqlDatabase m_db;
    std::map<QString, One> m_all;
};

} // namespace anvil::store
