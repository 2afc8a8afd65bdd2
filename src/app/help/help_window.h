// The manual in a reading window of our own; its pages ship with the program.
#pragma once

#include <QDialog>

class QListWidget;
class QTextBrowser;

namespace anvil::app {

class HelpWindow : public QDialog {
    Q_OBJECT
public:
    explicit HelpWindow(QWidget* parent = nullptr);
    /// Shows a page by its key, such as "verdict"; the first steps where there is none.
    void show(const QString& page);
    using QDialog::show;
    QString page() const { return m_page; }
    /// The keys of all pages, in reading order.
    static QStringList pages();

private:
    void read(const QString& page);
    QListWidget* m_list;
    QTextBrowser* m_text;
    QString m_page;
};

/// Version, licences, and where things are kept.
void showAbout(QWidget* parent);

} // namespace anvil::app
