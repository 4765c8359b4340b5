#pragma once
/// What the windows have in common that read a part from a file: the mesh to turn at the left; at the right what is asked, what was found
/// and the corner in section; below progress, the copy beside the build and the button that puts it in.

#include "document.hpp"
#include "job.hpp"
#include "solids/mesh_file.hpp"
#include "solids/step_parts.hpp"
#include "stages/wheel/mesh_view.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>

namespace deepstop::app {

class SectionView;

class FileWindow : public QDialog {
    Q_OBJECT
public:
    [[nodiscard]] MeshView* mesh() const { return view_; }
    [[nodiscard]] QComboBox* units() const { return units_; }
    [[nodiscard]] QCheckBox* keep() const { return keep_; }
    [[nodiscard]] QPushButton* putInButton() const { return putIn_; }
    [[nodiscard]] QString said() const { return said_->text(); }
    /// Reads a file beside the window.
    void open(const QString& path);
    /// Waits for what is being worked out.
    void finish()
    {
        reading_.finish();
        finishFinding();
        keeping_.finish();
    }

protected:
    /// What a window takes in.
    struct Takes {
        QString openWords; ///< of the button that asks for a file
        double smallest; ///< m across, by which the unit of a mesh is guessed
        double largest;
        bool faces = false; ///< of a STEP file, too
    };
    FileWindow(Document& document, Takes takes, QWidget* parent);
    struct Loaded {
        solids::LoadedMesh file;
        std::optional<solids::ReadSolid> solid; ///< faces of a STEP file
        QString path;
        scan::FileUnit guessed = scan::FileUnit::Millimetre;
        std::shared_ptr<const Cloud> cloud; ///< in the guessed unit
    };
    /// Metres of one in the file.
    [[nodiscard]] double unit() const;
    /// The surface in the unit that is chosen.
    [[nodiscard]] std::shared_ptr<const Cloud> cloudNow() const;
    /// Nothing can be copied beside a build that is nowhere yet.
    void offerKeeping();
    void working(bool on);
    /// One sentence in the place of what was found.
    void refuse(const QString& why);
    /// "12.5 mm ±0.1", or a colour's paragraph.
    [[nodiscard]] static QString coloured(const QColor& colour, const QString& text);
    [[nodiscard]] QString sized(double value, double plusMinus) const;

    /// Whether what was found can be put in.
    [[nodiscard]] virtual bool isWhole() const = 0;
    virtual void say() = 0;
    virtual void forgetFound() = 0;
    virtual void cancelFinding() = 0;
    virtual void finishFinding() = 0;
    /// The file is there.
    virtual void fileRead() = 0;
    virtual void putInFrom(const QString& path) = 0;

    [[nodiscard]] Document& document() const { return document_; }
    [[nodiscard]] QFormLayout* form() const { return form_; }
    /// Under the mesh.
    [[nodiscard]] QHBoxLayout* under() const { return under_; }

    std::shared_ptr<const Loaded> loaded_;
    QString refused_; ///< why a file was not read, or a length not understood
    MeshView* view_;
    SectionView* section_;
    QLabel* name_;
    QComboBox* units_;
    QLabel* said_;
    QProgressBar* progress_;
    QPushButton* stop_;
    QCheckBox* keep_;
    QPushButton* putIn_;
    Job<QString> keeping_;

private:
    void choose();
    void putIn();

    Document& document_;
    Takes takes_;
    Job<std::shared_ptr<const Loaded>> reading_;
    QFormLayout* form_;
    QHBoxLayout* under_;
};

} // namespace deepstop::app
