// Report: a live preview of the pages, and HTML and PDF out.
#pragma once

#include "widgets/panel.h"
#include <anvil/pages/paper.h>

class QLabel;
class QPushButton;
class QScrollArea;

namespace anvil::app {

/// The pages of a report, one below the other, scaled to the width.
class PagesView : public QWidget {
    Q_OBJECT
public:
    explicit PagesView(QWidget* parent = nullptr) : QWidget(parent) {}
    void setSheets(std::vector<pages::Sheet> sheets);
    const std::vector<pages::Sheet>& sheets() const { return m_sheets; }

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    double scale() const;
    void fit();
    std::vector<pages::Sheet> m_sheets;
};

class ReportStage : public Panel {
    Q_OBJECT
public:
    explicit ReportStage(Session& session, QWidget* parent = nullptr);
    pages::Page page() const;
    bool writeHtml(const QString& path);
    bool writePdf(const QString& path);

private:
    void fill() override;
    void fillTicks();
    void publish();
    QString suggested(const QString& ending) const;
    QLabel* m_sentence;
    QPushButton *m_html, *m_pdf, *m_publish;
    QWidget* m_ticks; ///< a box for each page of the verdict that can be in it
    QScrollArea* m_scroll;
    PagesView* m_pages;
};

} // namespace anvil::app
