#include "widgets/reading_card.hpp"

#include "document.hpp"
#include "quantity/entry.hpp"
#include "quantity/instrument_names.hpp"
#include "theme.hpp"
#include "drawing/dimension_field.hpp"
#include "drawing/fact_field.hpp"

#include <QPainter>
#include <QVBoxLayout>

namespace deepstop::app {

ReadingCard::ReadingCard(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), title_(new QLabel(this)), other_(new QLabel(this)), form_(new QFormLayout),
      trouble_(new QLabel(this)), known_(new QComboBox(this)), instrument_(new QComboBox(this)), width_(new QLineEdit(this))
{
    title_->setFont(reading(13, QFont::DemiBold));
    title_->setWordWrap(true);
    other_->setFont(figures(12));
    trouble_->setWordWrap(true);
    known_->addItems({ tr("measured"), tr("vendor sheet"), tr("estimated"), tr("design") });
    known_->setAccessibleName(tr("How it is known"));
    instrument_->setEditable(true);
    instrument_->addItem({});
    for (const char* one : { "tape", "rule", "vernier", "micrometer", "dial gauge", "feeler gauge", "scale" })
        instrument_->addItem(QString::fromStdString(instrumentInWords(one)));
    instrument_->setAccessibleName(tr("Instrument"));
    width_->setAccessibleName(tr("Plus or minus"));
    width_->setPlaceholderText(tr("by instrument"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(10, 8, 10, 10);
    column->setSpacing(4);
    column->addWidget(title_);
    form_->setContentsMargins(0, 2, 0, 0);
    form_->setVerticalSpacing(4);
    form_->addRow(tr("in other units"), other_);
    form_->addRow(tr("known"), known_);
    form_->addRow(tr("with"), instrument_);
    form_->addRow(tr("±"), width_);
    column->addLayout(form_);
    column->addWidget(trouble_);
    connect(known_, &QComboBox::activated, this, &ReadingCard::put);
    connect(instrument_, &QComboBox::activated, this, &ReadingCard::put);
    for (QLineEdit* line : { instrument_->lineEdit(), width_ }) {
        document_.drafts().watch(line, [this, line] { return putLine(line); });
        connect(line, &QLineEdit::editingFinished, this, [this, line] { putLine(line); });
    }
}

void ReadingCard::setReading(const std::string& pointer)
{
    if (pointer_ != pointer) {
        pointer_ = pointer;
        width_->setObjectName(QString::fromStdString(pointer + "/plus_minus"));
        instrument_->lineEdit()->setObjectName(QString::fromStdString(pointer + "/with"));
        if (field_)
            form_->removeRow(field_);
        field_ = nullptr;
        if (bend_)
            form_->removeRow(bend_);
        bend_ = nullptr;
        if (document_.study().directory->at(pointer)) {
            field_ = new DimensionField(document_, pointer, this);
            DimensionLine look;
            look.unit = true;
            field_->setLook(look);
            connect(field_, &DimensionField::goOn, known_, [this] { known_->setFocus(); });
            form_->insertRow(0, tr("reads"), field_);
            // Between two ends of one bend a wheel runs straight; elsewhere it may step in right behind a station.
            const auto station = pointer.substr(0, pointer.rfind('/'));
            if (pointer.starts_with("/wheels/") && pointer.find("/-/") == std::string::npos
                && (station.find("/barrel/") != std::string::npos || station.find("/spokes/") != std::string::npos)) {
                bend_ = new FactField(document_, station + "/bend", {}, this);
                form_->addRow(tr("bend here"), bend_);
            }
        }
    }
    refresh();
}

void ReadingCard::refresh()
{
    const auto* entry = document_.study().directory->at(pointer_);
    setVisible(entry && field_);
    if (!entry || !field_)
        return;
    filling_ = true;
    const Reading& r = *entry->reading;
    const Style& style = entry->address.style;
    const auto other = document_.units() == UnitSystem::Metric ? UnitSystem::Us : UnitSystem::Metric;
    auto label = QString::fromStdString(entry->address.label);
    label[0] = label[0].toUpper();
    title_->setText(entry->address.place.empty() ? label : label + QStringLiteral("\n") + QString::fromStdString(entry->address.place));
    const double half = uncertainty(r, style.dimension == Dimension::Length);
    field_->refresh();
    if (bend_)
        bend_->refresh();
    other_->setText(r.value ? QString::fromStdString(print(*r.value, style, other)) : tr("not read yet"));
    known_->setCurrentIndex(static_cast<int>(r.known));
    instrument_->setEnabled(r.known == Known::Measured);
    const auto shown = [this](QLineEdit* line, const std::string& text) {
        return document_.drafts().has(line->objectName()) ? document_.drafts().text(line->objectName()) : QString::fromStdString(text);
    };
    if (const auto with = shown(instrument_->lineEdit(), instrumentInWords(r.instrument)); instrument_->currentText() != with)
        instrument_->setCurrentText(with);
    const auto width = shown(
        width_, r.plusMinus ? editable(*r.plusMinus + style.unit(document_.units()).offset, style.unit(document_.units())) : std::string());
    if (width_->text() != width)
        width_->setText(width);
    width_->setPlaceholderText(tr("%1 by instrument").arg(half / style.unit(document_.units()).factor, 0, 'g', 2));
    trouble_->setVisible(document_.drafts().has(width_->objectName()) && !trouble_->text().isEmpty());
    filling_ = false;
}

bool ReadingCard::putLine(QLineEdit* line)
{
    if (!document_.drafts().has(line->objectName()))
        return true;
    if (!put())
        return false;
    document_.drafts().settle(line->objectName());
    refresh();
    return true;
}

bool ReadingCard::put()
{
    const auto* entry = document_.entry(pointer_);
    if (filling_ || !entry || !entry->reading->value)
        return true;
    trouble_->clear();
    Reading r = *entry->reading;
    r.known = static_cast<Known>(known_->currentIndex());
    r.instrument = r.known == Known::Measured ? instrumentFrom(instrument_->currentText().toStdString()) : std::string();
    if (width_->text().trimmed().isEmpty()) {
        r.plusMinus.reset();
    } else {
        const Style& style = entry->address.style;
        const auto parsed = parseQuantity(width_->text().toStdString(), style.dimension, style.unit(document_.units()));
        const double half = parsed ? *parsed.value - style.unit(document_.units()).offset : -1;
        if (half < 0) {
            trouble_->setText(parsed ? tr("A plus-or-minus cannot be less than 0.") : QString::fromStdString(parsed.refusal));
            trouble_->setVisible(true);
            return false;
        }
        r.plusMinus = half;
    }
    if (const auto why = refusal(entry->address, r, document_.units()); !why.empty()) {
        trouble_->setText(QString::fromStdString(why));
        trouble_->setVisible(true);
        return false;
    }
    if (r.known == entry->reading->known && r.instrument == entry->reading->instrument
        && (r.plusMinus == entry->reading->plusMinus
            || (r.plusMinus && entry->reading->plusMinus && std::abs(*r.plusMinus - *entry->reading->plusMinus) < 1e-9)))
        return true;
    document_.setReading(pointer_, r);
    return true;
}

void ReadingCard::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(t.focus, 1.4));
    p.setBrush(t.raised);
    p.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 3, 3);
}

} // namespace deepstop::app
