#pragma once
/// A receiver in the car, read at arm's length: its line is chosen here, and four lines of words are as large as they may be.

#include "instruments/wire.hpp"
#include "proving/live.hpp"
#include "quantity/format.hpp"

#include <QElapsedTimer>
#include <QWidget>

class QComboBox;
class QPushButton;

namespace deepstop::app {

class ReceiverView : public QWidget {
    Q_OBJECT
public:
    [[nodiscard]] QComboBox* address() const { return address_; }
    [[nodiscard]] QPushButton* connection() const { return connect_; }
    /// The words shown, from the largest to the smallest: speed, what to do, how it went, what is next.
    [[nodiscard]] virtual QStringList words() const = 0;
    /// Lets go of the line: a stop that was being made is told of as one that does not count.
    void stopListening();

signals:
    void refused(const QString& why);

protected:
    explicit ReceiverView(QWidget* parent);
    /// A new connection begins, or another plan: whatever was heard is over.
    virtual void begin() = 0;
    /// Colour of the second line while the receiver is trusted.
    [[nodiscard]] virtual QColor colourNow() const = 0;
    [[nodiscard]] virtual QString caution() const = 0;
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

    [[nodiscard]] double now() const { return static_cast<double>(clock_.elapsed()) / 1000; }
    [[nodiscard]] bool isOpen() const { return wire_.isOpen(); }
    /// It is there, talks, knows where it is and is not out of time.
    [[nodiscard]] bool isHeard() const;
    /// What is wrong with it, in words; empty while it is heard.
    [[nodiscard]] QString trouble() const;
    [[nodiscard]] QString speedWords() const;
    [[nodiscard]] proving::LiveRecorder& recorder() const { return *recorder_; }
    void record(double speed, std::function<void(const proving::FoundStop&)> found);

    UnitSystem units_ = UnitSystem::Metric;

private:
    void open();
    /// Draws again what is not on the screen as it is.
    void showChanges();

    Wire wire_;
    std::unique_ptr<proving::LiveRecorder> recorder_;
    QElapsedTimer clock_;
    QStringList shown_; ///< what was drawn last
    QComboBox* address_;
    QPushButton* connect_;
};

} // namespace deepstop::app
