#pragma once
/// What is shown before a build is open: what the program answers, a new car, the demos, recent builds with their headline, unsaved work.

#include "job.hpp"
#include "quantity/unit.hpp"
#include "recovery.hpp"

#include <QAbstractButton>
#include <QScrollArea>

class QVBoxLayout;

namespace deepstop::app {

/// A title with a line underneath, pressed as one.
class StartCard : public QAbstractButton {
    Q_OBJECT
public:
    StartCard(const QString& title, const QString& line, QWidget* parent);
    void setLine(const QString& line);
    [[nodiscard]] const QString& line() const { return line_; }
    [[nodiscard]] QSize sizeHint() const override;
    [[nodiscard]] bool hasHeightForWidth() const override { return true; }
    [[nodiscard]] int heightForWidth(int width) const override;

protected:
    void paintEvent(QPaintEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    QString line_;
};

/// What a first kit is asked.
enum class GuidedQuestion { Everything, Fits, Shims, Better };

class StartPage : public QScrollArea {
    Q_OBJECT
public:
    explicit StartPage(QWidget* parent);
    /// Fills it anew; headlines of recent builds follow as they are worked out.
    void refresh(const QStringList& recent, const QString& demoFolder, UnitSystem units);
    [[nodiscard]] StartCard* card(const QString& name) const { return findChild<StartCard*>(name); }

signals:
    void newCar(deepstop::app::GuidedQuestion question);
    void demoWanted(const QString& path);
    void buildWanted(const QString& path);
    void copyWanted(const QString& copy);

private:
    struct Headline {
        QString path;
        QString text;
    };
    QVBoxLayout* column(QWidget* parent, const QString& title);
    void workOutHeadlines(QStringList paths);

    QWidget* inside_ = nullptr;
    UnitSystem units_ = UnitSystem::Metric;
    Job<Headline> job_;
};

} // namespace deepstop::app
