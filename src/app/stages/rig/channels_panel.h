// More channels: what is read beside force and travel, from the rig's own lines or from devices of their own.
#pragma once

#include "widgets/panel.h"

namespace anvil::app {

class RowEditor;

class ChannelsPanel : public Panel {
    Q_OBJECT
public:
    explicit ChannelsPanel(Session& session, QWidget* parent = nullptr);

private:
    void fill() override;
    void tick();
    void saveChannel(int row);
    void saveDevice(int row);
    int device() const; ///< whose columns are shown; -1: there is none
    void showColumns();
    void saveColumns();
    void add();
    void takeAway();
    void guess();
    QTableWidget *m_channels, *m_devices;
    RowEditor* m_columns;
    QLabel *m_none, *m_state;
};

} // namespace anvil::app
