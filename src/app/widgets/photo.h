// Photographs as they are looked at: turned as their camera says, large ones too.
#pragma once

#include <QByteArray>
#include <QPixmap>
#include <QStringList>
#include <QTransform>
#include <anvil/quantity/error.h>

namespace anvil::app {

/// A picture the right way up. Places on it are kept as they lie in the file, before it is turned: `turn`
/// leads from there to what is shown.
struct Photo {
    Photo(QPixmap p) : picture(std::move(p)) {} // NOLINT: a pixmap is a photo that lies as it should
    Photo(QPixmap p, const QTransform& t) : picture(std::move(p)), turn(t) {}
    QPixmap picture;
    QTransform turn;
};

/// The picture in these bytes. Error, a sentence without a name: it is none that can be read here, or it is
/// larger than any camera's.
Expected<Photo> photoFrom(const QByteArray& bytes);

/// A small one of at most `most` pixels a side; null where it is no picture. Of a large photograph no more is
/// unpacked than is needed.
QPixmap smallPhoto(const QByteArray& bytes, int most);

/// Endings of pictures that can be read on this machine, lower case.
QStringList pictureEndings();

} // namespace anvil::app
