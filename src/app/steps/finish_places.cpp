#include "app/steps/finish_places.h"

#include <QHBoxLayout>
#include <QSignalBlocker>

#include "app/panels/brush_panel.h"
#include "app/steps/finish_detail.h"

namespace bp::app {
namespace {

constexpr int usual_reach = 10, widest_reach = 60;  // of likeness, in hundredths of white

QVBoxLayout* column_of(QWidget* widget) {
    auto* out = new QVBoxLayout(widget);
    out->setContentsMargins(0, 0, 0, 0);
    out->setSpacing(space::small);
    return out;
}

}  // namespace

FinishPlaces::FinishPlaces(Studio& studio, Viewer& viewer, Canvas& canvas, QWidget* parent)
    : Page(parent),
      studio_(studio),
      viewer_(viewer),
      canvas_(canvas),
      target_(studio, viewer),
      shape_(canvas, shape_uses()),
      pick_(canvas, [this](Point at) {
          studio_.find_alike(0, at, reach_->value() / 100.0, everywhere_->isChecked(), [this](const Mask& found) {
              add(with_new_place(studio_.pile(), PlaceIn::everywhere, found), tr("Place of what is alike"));
          });
          put_down();
      }) {
    build_new();
    list_ =
        new FoundList({QStringLiteral("places_list"), tr("Places"),
                       tr("What is done to parts of the picture, from the first to the last. The tick shows what one "
                          "gives. Choose one to change it."),
                       QString(), QString()},
                      this);
    column()->addWidget(list_);
    hint_ = quiet_label({}, this);
    column()->addWidget(hint_);
    of_chosen_ = new PageTabs(this, 3);
    build_tone();
    build_area();
    build_detail();
    of_chosen_->add(tone_page_, tr("Tone"), QStringLiteral("place_tone"), tr("Tone and colour of the place"));
    of_chosen_->add(area_page_, tr("Area"), QStringLiteral("place_area"),
                    tr("Where the place is, how strongly it shows, in which order"));
    of_chosen_->add(detail_page_, tr("Detail"), QStringLiteral("place_detail"),
                    tr("Sharpness, contrast and noise there"));
    column()->addWidget(of_chosen_);
    connect(list_, &FoundList::chosen, &target_, &PlaceTarget::set_active);
    connect(list_, &FoundList::decided, this, [this](const std::vector<int>& ids, bool on) {
        Pile next = studio_.pile();
        for (const int id : ids)
            if (const FinishPlace* there = find_place(next, id)) {
                FinishPlace place = *there;
                place.on = on;
                next = with_place(std::move(next), place);
            }
        studio_.document().edit(std::move(next), on ? tr("Place on") : tr("Place off"));
    });
    connect(&canvas_, &Canvas::tool_left, this, [this] {
        if (isVisible()) put_down();
    });
    connect(&canvas_, &Canvas::painting_changed, this, [this] {
        if (isVisible() && canvas_.painting() && (shape_.draws() || like_->isChecked())) {
            draw(std::nullopt);
            like_->setChecked(false);
        }
    });
    connect(&studio.document(), &Document::changed, this, &FinishPlaces::out_of_date);
    connect(&viewer, &Viewer::view_changed, this, &FinishPlaces::out_of_date);
    connect(&target_, &PlaceTarget::active_changed, this, [this] {
        canvas_.update();
        out_of_date();
    });
}

PlaceShapeTool::Uses FinishPlaces::shape_uses() {
    return {[this]() -> std::optional<DrawnShape> {
                const FinishPlace* place = viewer_.view() == View::result ? target_.place() : nullptr;
                return place ? place->shape : std::nullopt;
            },
            [this](const DrawnShape& shape) {
                if (const FinishPlace* place = target_.place())
                    viewer_.try_out(with_place_shape(studio_.pile(), place->id, shape, place->soft));
            },
            [this] { viewer_.leave_trial(); },
            [this](const DrawnShape& shape) {
                if (const FinishPlace* place = target_.place())
                    studio_.document().edit(with_place_shape(studio_.pile(), place->id, shape, place->soft),
                                            tr("Pull a place"));
            },
            [this](const DrawnShape& shape) {
                add(with_new_place(studio_.pile(), shape),
                    shape.kind == ShapeKind::ramp ? tr("New ramp") : tr("New ellipse"));
                put_down();
            },
            [this] { return target_.hatched(); }};
}

void FinishPlaces::build_new() {
    auto* grid = new QGridLayout;
    ramp_ = push(tr("Ramp"), QStringLiteral("place_ramp"),
                 tr("Drag from where it is to be whole to where nothing is left: a new place"), this);
    ellipse_ = push(tr("Ellipse"), QStringLiteral("place_ellipse"), tr("Drag over the picture: a new place"), this);
    auto* brush = push(tr("Brush"), QStringLiteral("place_brush"), tr("A new place that is painted"), this);
    like_ = push(tr("Alike"), QStringLiteral("place_like"),
                 tr("Click on the picture: a new place of what is like it in brightness and colour"), this);
    sky_ = push(tr("Sky"), QStringLiteral("place_sky"), tr("A new place: all of the sky"), this);
    land_ = push(tr("Land"), QStringLiteral("place_land"), tr("A new place: all of the land"), this);
    int number = 0;
    for (QPushButton* button : {ramp_, ellipse_, brush, like_, sky_, land_}) {
        button->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
        grid->addWidget(button, number / 3, number % 3);
        ++number;
    }
    for (QPushButton* button : {ramp_, ellipse_, like_}) button->setCheckable(true);
    column()->addWidget(quiet_label(tr("New place"), this));
    column()->addLayout(grid);
    reach_ = new NamedSlider(
        tr("Reach"), tr("How far brightness and colour may differ from those of the place that is clicked on"), 1,
        widest_reach, [](int v) { return tr("%1%").arg(v); }, this);
    reach_->slider()->setObjectName(QStringLiteral("place_reach"));
    reach_->set_value(usual_reach);
    column()->addWidget(reach_);
    everywhere_ = new QCheckBox(tr("Everywhere"), this);
    everywhere_->setObjectName(QStringLiteral("place_everywhere"));
    everywhere_->setToolTip(tr("Not only what hangs together with the place"));
    column()->addWidget(everywhere_);
    for (QWidget* of_likeness : {static_cast<QWidget*>(reach_), static_cast<QWidget*>(everywhere_)})
        of_likeness->hide();
    connect(like_, &QPushButton::toggled, this, [this](bool on) {
        reach_->setVisible(on);
        everywhere_->setVisible(on);
    });
    connect(ramp_, &QPushButton::clicked, this,
            [this](bool on) { draw(on ? std::optional(ShapeKind::ramp) : std::nullopt); });
    connect(ellipse_, &QPushButton::clicked, this,
            [this](bool on) { draw(on ? std::optional(ShapeKind::ellipse) : std::nullopt); });
    connect(like_, &QPushButton::clicked, this, &FinishPlaces::pick);
    connect(brush, &QPushButton::clicked, this, [this] {
        put_down();
        add(with_new_place(studio_.pile(), PlaceIn::everywhere, Mask(studio_.pile().size)), tr("New painted place"));
        viewer_.set_view(View::result);
        Brush keeping = canvas_.brush();
        keeping.keep = true;
        canvas_.set_brush(keeping);
        canvas_.set_painting(&target_);
    });
    for (auto [button, in] : {std::pair{sky_, PlaceIn::sky}, std::pair{land_, PlaceIn::land}})
        connect(button, &QPushButton::clicked, this, [this, in = in] {
            put_down();
            add(with_new_place(studio_.pile(), in, Mask::full(studio_.pile().size)),
                in == PlaceIn::sky ? tr("Place of the sky") : tr("Place of the land"));
        });
}

void FinishPlaces::build_tone() {
    tone_page_ = new QWidget(this);
    auto* inside = column_of(tone_page_);
    tone_ = new TonePanel(tone_page_, QStringLiteral("place_look"));
    inside->addWidget(tone_);
    const auto looked = [this](const Look& look) {
        const FinishPlace* of = target_.place();
        if (!of) return studio_.pile();
        FinishPlace place = *of;
        place.look = look;
        return with_place(studio_.pile(), place);
    };
    connect(tone_, &TonePanel::tried, this, [this, looked](const Look& look) { viewer_.try_out(looked(look)); });
    connect(tone_, &TonePanel::settled, this, [this, looked](const Look& look, const QString& value) {
        studio_.document().edit(looked(look), tr("%1 of a place").arg(value),
                                QStringLiteral("place look %1 %2").arg(target_.active()).arg(value));
        viewer_.leave_trial();
    });
    connect(tone_, &TonePanel::left, this, [this] {
        viewer_.leave_trial();
        refresh();
    });
    connect(tone_, &TonePanel::knot_held, &canvas_, &Canvas::set_show_clipping);
}

void FinishPlaces::build_area() {
    area_page_ = new QWidget(this);
    auto* inside = column_of(area_page_);
    name_ = new QLineEdit(area_page_);
    name_->setObjectName(QStringLiteral("place_name"));
    name_->setAccessibleName(tr("Name of the place"));
    name_->setPlaceholderText(tr("Name"));
    inside->addWidget(name_);
    // Every letter counts at once, so that none is lost; a word is one step.
    connect(name_, &QLineEdit::textEdited, this, [this](const QString& words) {
        edit_chosen([&](FinishPlace& place) { place.name = words.toStdString(); }, tr("Name a place"),
                    QStringLiteral("place name %1").arg(target_.active()));
    });
    area_ = new ValueSliders(studio_, viewer_, area_page_);
    area_->add({QStringLiteral("place_strength"),
                tr("Strength"),
                tr("How much of the place shows"),
                0,
                100,
                0.01,
                {},
                2,
                [this](const Pile& pile) {
                    const FinishPlace* place = find_place(pile, target_.active());
                    return place ? place->strength : 1.0;
                },
                [this](const Pile& pile, double amount) {
                    const FinishPlace* of = find_place(pile, target_.active());
                    if (!of) return pile;
                    FinishPlace place = *of;
                    place.strength = amount;
                    return with_place(pile, place);
                },
                [this] { return target_.active(); }});
    inside->addWidget(area_);
    softness_ = new ValueSliders(studio_, viewer_, area_page_);
    softness_->add({QStringLiteral("place_soft"),
                    tr("Softness"),
                    tr("How far inside its border an ellipse begins to fade"),
                    0,
                    100,
                    0.01,
                    {},
                    2,
                    [this](const Pile& pile) {
                        const FinishPlace* place = find_place(pile, target_.active());
                        return place ? place->soft : 0.0;
                    },
                    [this](const Pile& pile, double amount) {
                        const FinishPlace* place = find_place(pile, target_.active());
                        return place && place->shape ? with_place_shape(pile, place->id, *place->shape, amount) : pile;
                    },
                    [this] { return target_.active(); }});
    inside->addWidget(softness_);
    inside->addWidget(new BrushPanel(canvas_, QStringLiteral("place_paint"),
                                     {tr("Keep"), tr("Paints: what you paint over belongs to the place, too (K)"),
                                      tr("Give back"), tr("Paints: what you paint over is left as it is (K)")},
                                     BrushPanel::Kind::soft, target_, area_page_));
    show_ = new QCheckBox(tr("Show where it is"), area_page_);
    show_->setObjectName(QStringLiteral("place_show"));
    show_->setToolTip(tr("Hatches what the place keeps"));
    inside->addWidget(show_);
    connect(show_, &QCheckBox::toggled, this, [this](bool on) {
        target_.set_shown(on);
        canvas_.update();
    });
    auto* row = new QHBoxLayout;
    up_ = push(tr("Earlier"), QStringLiteral("place_earlier"), tr("Does it before the place above it in the list"),
               area_page_);
    down_ = push(tr("Later"), QStringLiteral("place_later"), tr("Does it after the place below it in the list"),
                 area_page_);
    auto* copy = push(tr("Copy"), QStringLiteral("place_copy"), tr("The same place once more"), area_page_);
    auto* remove = push(tr("Remove"), QStringLiteral("place_remove"), tr("Takes the place away"), area_page_);
    for (QPushButton* button : {up_, down_, copy, remove}) {
        button->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
        row->addWidget(button);
    }
    inside->addLayout(row);
    for (auto [button, steps] : {std::pair{up_, -1}, std::pair{down_, 1}})
        connect(button, &QPushButton::clicked, this, [this, steps = steps] {
            studio_.document().edit(with_place_moved(studio_.pile(), target_.active(), steps), tr("Order of places"));
        });
    connect(copy, &QPushButton::clicked, this,
            [this] { add(with_copied_place(studio_.pile(), target_.active()), tr("Copy a place")); });
    connect(remove, &QPushButton::clicked, this,
            [this] { studio_.document().edit(without_place(studio_.pile(), target_.active()), tr("Remove a place")); });
}

void FinishPlaces::build_detail() {
    detail_page_ = new QWidget(this);
    auto* inside = column_of(detail_page_);
    detail_ = new ValueSliders(studio_, viewer_, detail_page_);
    add_detail_sliders(
        *detail_, QStringLiteral("place_detail_"),
        [this](const Pile& pile) -> const Detail* {
            const FinishPlace* place = find_place(pile, target_.active());
            return place ? &place->detail : nullptr;
        },
        [this](const Pile& pile, const Detail& detail) {
            const FinishPlace* of = find_place(pile, target_.active());
            if (!of) return pile;
            FinishPlace place = *of;
            place.detail = detail;
            return with_place(pile, place);
        },
        [this] { return target_.active(); });
    inside->addWidget(detail_);
}

void FinishPlaces::edit_chosen(const std::function<void(FinishPlace&)>& change, const QString& what,
                               const QString& merged) {
    const FinishPlace* of = target_.place();
    if (!of) return;
    FinishPlace place = *of;
    change(place);
    studio_.document().edit(with_place(studio_.pile(), place), what, merged);
}

void FinishPlaces::add(const std::pair<Pile, int>& made, const QString& what) {
    studio_.document().edit(made.first, what);
    target_.set_active(made.second);
}

void FinishPlaces::draw(std::optional<ShapeKind> kind) {
    if (kind) {
        canvas_.set_painting(nullptr);
        viewer_.set_view(View::result);
    }
    shape_.draw(kind);
    ramp_->setChecked(kind == ShapeKind::ramp);
    ellipse_->setChecked(kind == ShapeKind::ellipse);
    like_->setChecked(false);
    canvas_.set_tool(&shape_);
}

void FinishPlaces::pick(bool on) {
    draw(std::nullopt);
    like_->setChecked(on);
    if (!on) return;
    canvas_.set_painting(nullptr);
    viewer_.set_view(View::result);
    canvas_.set_tool(&pick_);
}

void FinishPlaces::put_down() {
    if (canvas_.paints_on() == &target_) canvas_.set_painting(nullptr);
    draw(std::nullopt);
}

void FinishPlaces::opened() {
    refresh();
    viewer_.set_view(View::result);
    draw(std::nullopt);
}

void FinishPlaces::closed() {
    put_down();
    canvas_.set_tool(nullptr);
    viewer_.leave_trial();
}

QString FinishPlaces::name_of(const FinishPlace& place) const {
    if (!place.name.empty()) return QString::fromStdString(place.name);
    const QString what = place.in == PlaceIn::sky               ? tr("Sky")
                         : place.in == PlaceIn::land            ? tr("Land")
                         : !place.shape                         ? tr("Painted")
                         : place.shape->kind == ShapeKind::ramp ? tr("Ramp")
                                                                : tr("Ellipse");
    return tr("%1 %2").arg(what).arg(place.id);
}

void FinishPlaces::refresh() {
    const Pile& pile = studio_.pile();
    sky_->setVisible(pile.zones.has_value());
    land_->setVisible(pile.zones.has_value());
    std::vector<FoundThing> things;
    for (const FinishPlace& place : pile.finish.places)
        things.push_back({place.id, name_of(place), tr("Choose it to change it; the tick shows what it gives"),
                          place.on, place.id == target_.active()});
    list_->set_things(things, things.empty() ? QString() : tr("Places"));
    const FinishPlace* place = target_.place();
    hint_->setText(things.empty() ? tr("Draw where the picture is to be brighter, darker, warmer, calmer.")
                                  : tr("Choose a place in the list."));
    hint_->setVisible(!place);
    of_chosen_->setVisible(place != nullptr);
    if (!place) return;
    tone_->set_coloured(pile.channels == 3);
    tone_->set_look(place->look);
    area_->show_values();
    detail_->show_values();
    softness_->setVisible(place->shape && place->shape->kind == ShapeKind::ellipse);
    softness_->show_values();
    const QString name = QString::fromStdString(place->name);
    if (name_->text() != name) name_->setText(name);
    up_->setEnabled(pile.finish.places.front().id != place->id);
    down_->setEnabled(pile.finish.places.back().id != place->id);
}

}  // namespace bp::app
