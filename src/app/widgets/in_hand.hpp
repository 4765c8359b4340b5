#pragma once
/// What readings are typed from: chosen once, then noted with each of them.

#include <QComboBox>

namespace deepstop::app {

class Document;

class InHand : public QComboBox {
    Q_OBJECT
public:
    InHand(Document& document, QWidget* parent);
    /// Shows what the document has in hand.
    void refresh();

private:
    Document& document_;
};

} // namespace deepstop::app
