#include "help/help_window.h"

#include "theme/theme.h"
#include <QApplication>
#include <QDir>
#include <QFile>
#include <QHBoxLayout>
#include <QListWidget>
#include <QMessageBox>
#include <QSettings>
#include <QStandardPaths>
#include <QTextBlock>
#include <QTextBrowser>

static void initManual() { Q_INIT_RESOURCE(manual); }

namespace anvil::app {

namespace {

QString textOf(const QString& page) {
    QFile file(QStringLiteral(":/manual/%1.md").arg(page));
    return file.open(QIODevice::ReadOnly) ? QString::fromUtf8(file.readAll()) : QString();
}

/// The first line, without its sign.
QString titleOf(const QString& page) { return textOf(page).section('\n', 0, 0).remove(0, 2); }

} // namespace

QStringList HelpWindow::pages() {
    return {"first-steps", "question", "specimens", "rig",      "pull", "curves",
            "verdict",     "report",   "how-sure",  "glossary", "keys"};
}

HelpWindow::HelpWindow(QWidget* parent) : QDialog(parent) {
    initManual();
    setWindowTitle(tr("Help – Jaunty Anvil"));
    resize(820, 640);
    auto* row = new QHBoxLayout(this);
    m_list = new QListWidget;
    m_list->setAccessibleName(tr("Pages of the manual"));
    m_list->setFixedWidth(grown(170));
    for (const auto& page : pages()) {
        auto* item = new QListWidgetItem(titleOf(page), m_list);
        item->setData(Qt::UserRole, page);
    }
    row->addWidget(m_list);
    m_text = new QTextBrowser;
    m_text->setObjectName("manual");
    m_text->setAccessibleName(tr("The manual"));
    m_text->setOpenLinks(false); // pages of ours only; nothing is fetched
    row->addWidget(m_text, 1);
    connect(m_list, &QListWidget::currentItemChanged, this, [this](QListWidgetItem* item) {
        if (item) read(item->data(Qt::UserRole).toString());
    });
    connect(m_text, &QTextBrowser::anchorClicked, this,
            [this](const QUrl& to) { show(to.path().section('.', 0, 0)); });
}

void HelpWindow::show(const QString& page) {
    const auto at = std::max(qsizetype{0}, pages().indexOf(page));
    m_list->setCurrentRow(static_cast<int>(at));
    read(pages().at(at));
    show();
    raise();
    activateWindow();
    m_text->setFocus();
}

void HelpWindow::read(const QString& page) {
    if (page == m_page) return;
    m_page = page;
    m_text->setMarkdown(textOf(page));
    auto* document = m_text->document();
    document->setDocumentMargin(20);
    for (auto block = document->begin(); block.isValid(); block = block.next()) { // room between paragraphs
        QTextCursor cursor(block);
        auto format = block.blockFormat();
        format.setBottomMargin(6);
        cursor.setBlockFormat(format);
    }
    m_text->moveCursor(QTextCursor::Start);
}

void showAbout(QWidget* parent) {
    const auto documents = QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation);
    QMessageBox box(parent);
    box.setWindowTitle(QObject::tr("About Jaunty Anvil"));
    box.setTextFormat(Qt::PlainText);
    box.setText(QObject::tr("Jaunty Anvil %1").arg(QStringLiteral(ANVIL_VERSION)));
    box.setInformativeText(
        QObject::tr(
            "Finds out which option is strongest by breaking it.\n\n"
            "The program is free software under the GNU General Public License, version 3. Its typeface is "
            "under the SIL Open Font License 1.1, its icons under the ISC licence; it is made with Qt %1, "
            "SQLite and other libraries of Debian.\n\n"
            "Projects without a place of their own are kept in\n%2\nWhat the program remembers of you is "
            "in\n%3\n\n"
            "Results compare what was tested here, in this way. They are no rating and no certificate.")
            .arg(QString::fromLatin1(qVersion()), QDir::toNativeSeparators(documents),
                 QDir::toNativeSeparators(QSettings().fileName())));
    box.exec();
}

} // namespace anvil::app
