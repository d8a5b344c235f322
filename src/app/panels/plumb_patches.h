// What is around a point in every frame, as small pictures.
#pragma once

#include <QImage>
#include <QWidget>
#include <vector>

namespace bp::app {

class PlumbPatches : public QWidget {
    Q_OBJECT

  public:
    struct Patch {
        int frame = 0;
        int number = 0;  // in the run
        QImage image;
        bool shows = false;   // the result comes from it
        bool silent = false;  // it does not vote there
    };
    explicit PlumbPatches(QWidget* parent);
    void set_patches(std::vector<Patch> patches);
    void set_chosen(int frame);
    QRect place_of(int frame) const;
    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override;
    QSize sizeHint() const override;

  signals:
    void frame_chosen(int frame);

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;

  private:
    QRect cell(std::size_t at) const;
    int columns(int width) const;

    std::vector<Patch> patches_;
    int chosen_ = 0;
};

}  // namespace bp::app
