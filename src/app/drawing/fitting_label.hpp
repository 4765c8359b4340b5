#pragma once
/// A label whose letters become smaller until its words fit: sentences of one language are longer than those of another.

#include <QLabel>

namespace deepstop::app {

class FittingLabel : public QLabel {
    Q_OBJECT
public:
    /// @param largest,smallest pixels of its letters  @param lines at most; what does not fit then stands in the tool tip
    FittingLabel(int largest, int smallest, int lines, QFont::Weight weight, QWidget* parent);
    void say(const QString& words);
    /// Its words fit its place, not the other way round.
    [[nodiscard]] bool hasHeightForWidth() const override { return false; }

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    void fit();

    int largest_;
    int smallest_;
    int lines_;
    QFont::Weight weight_;
};

} // namespace deepstop::app
