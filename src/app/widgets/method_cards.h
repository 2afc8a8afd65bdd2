// The methods as cards with a drawing each, found by the words of those who want one.
#pragma once

#include <QWidget>
#include <string>
#include <vector>

class QGridLayout;
class QLineEdit;

namespace anvil::app {

class PictureButton;

class MethodCards : public QWidget {
    Q_OBJECT
public:
    explicit MethodCards(QWidget* parent = nullptr);
    /// Its key; empty: none.
    const std::string& chosen() const { return m_chosen; }
    void choose(const std::string& key);
    QLineEdit* search() const { return m_search; }
    /// Once one is picked the others give way; picking it again shows all.
    void setFolding(bool folding) { m_folding = folding; }
    /// Whether only the one picked is on show.
    bool folded() const { return m_folded; }

signals:
    void picked(); ///< by hand

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    void arrange();
    struct Card {
        std::string key;
        PictureButton* button = nullptr;
    };
    QLineEdit* m_search;
    QGridLayout* m_grid;
    QWidget *m_cards, *m_nothing;
    std::vector<Card> m_all;
    std::string m_chosen;
    int m_columns = 0;
    bool m_folding = false, m_folded = false;
};

} // namespace anvil::app
