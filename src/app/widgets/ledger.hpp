#pragma once
/// Before and after of the figures that decide, as the title block of the sheet.

#include "study/study.hpp"

#include <QAbstractButton>
#include <QWidget>

#include <vector>

namespace deepstop::app {

class LedgerCell : public QAbstractButton {
    Q_OBJECT
public:
    explicit LedgerCell(QWidget* parent);
    void setLine(const LedgerLine& line, const Study& study);
    [[nodiscard]] const LedgerLine& line() const { return line_; }
    /// "15.31 → 14.39 kg"
    [[nodiscard]] QString beforeAfter() const { return before_ + QStringLiteral(" → ") + after_; }
    [[nodiscard]] QString word() const { return word_; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    LedgerLine line_;
    QString before_;
    QString after_;
    QString unit_;
    QString word_;
};

class Ledger : public QWidget {
    Q_OBJECT
public:
    explicit Ledger(QWidget* parent = nullptr);
    void setStudy(const Study& study);
    /// Null where the study has no such line.
    [[nodiscard]] LedgerCell* cell(std::string_view id) const;

signals:
    void chosen(std::string_view chapter);

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    std::vector<LedgerCell*> cells_;
};

} // namespace deepstop::app
