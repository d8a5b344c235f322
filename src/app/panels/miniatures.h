// A choice made among live miniatures of the result.
#pragma once

#include <QAbstractButton>
#include <QGridLayout>
#include <QImage>
#include <optional>
#include <tuple>
#include <utility>
#include <vector>

#include "app/looks/display.h"
#include "pile/pile.h"

namespace bp::app {

class Miniature : public QAbstractButton {
    Q_OBJECT

  public:
    Miniature(const QString& label, const QString& tip, QSize picture, QWidget* parent);
    void set_picture(const QImage& image);
    QSize sizeHint() const override;

  protected:
    void paintEvent(QPaintEvent*) override;

  private:
    QSize picture_size_;
    QImage picture_;
};

// A grid of miniatures of which one is chosen. Arrow keys move between them; Enter or Space chooses.
class MiniatureGrid : public QWidget {
    Q_OBJECT

  public:
    MiniatureGrid(int columns, QSize picture, QWidget* parent = nullptr);
    void add(int value, const QString& label, const QString& tip);
    void set_picture(int value, const QImage& image);
    void set_chosen(int value);
    Miniature* button(int value) const;

  signals:
    void chosen(int value);

  protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

  private:
    struct Entry {
        int value;
        Miniature* button;
    };
    int columns_;
    QSize picture_;
    QGridLayout* grid_;
    std::vector<Entry> entries_;
};

// What the miniatures were made of that are seen: choosing a frame, or the one among them that is chosen already, is no
// reason to make them anew while the picture itself is waited for.
class MadeOf {
  public:
    // Whether they are to be made, which they then are.
    bool another(Pile pile, Zone zone) {
        std::tuple now(std::move(pile), zone, display_profile());
        if (of_ == now) return false;
        of_ = std::move(now);
        return true;
    }
    // Not all of them could be made, or what they are made of has come in part.
    void forget() { of_.reset(); }

  private:
    std::optional<std::tuple<Pile, Zone, Profile>> of_;
};

}  // namespace bp::app
