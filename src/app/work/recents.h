// The piles that were open last, with what they look like.
#pragma once

#include <QImage>
#include <QString>
#include <vector>

namespace bp::app {

struct RecentPile {
    QString path;
    QImage picture;  // small; null when it was never seen
};

// Those whose files are there, the one that was open last first.
std::vector<RecentPile> recent_piles();
// It was opened or saved. A null picture keeps the one that is known.
void note_recent(const QString& path, const QImage& picture);
void forget_recent(const QString& path);

}  // namespace bp::app
