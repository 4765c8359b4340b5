#pragma once
/// The quick sums in a window of their own: type into any of them in any unit, the answer stands below at once.

#include "quantity/format.hpp"

#include <QComboBox>
#include <QDialog>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>

#include <map>
#include <string>

namespace deepstop::app {

class QuickSums : public QDialog {
    Q_OBJECT
public:
    explicit QuickSums(QWidget* parent = nullptr);

    void setUnits(UnitSystem units);
    void choose(const QString& name);
    [[nodiscard]] QLineEdit* input(const std::string& key) const;
    [[nodiscard]] QString answer() const { return answer_->text(); }

private:
    void layOut();
    void work();

    UnitSystem units_ = UnitSystem::Metric;
    QComboBox* which_;
    QWidget* keys_;
    QFormLayout* form_;
    std::map<std::string, QLineEdit*> inputs_;
    QLabel* answer_;
    QLabel* notes_;
};

} // namespace deepstop::app
