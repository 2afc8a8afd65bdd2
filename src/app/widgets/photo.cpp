#include "widgets/photo.h"

#include <QBuffer>
#include <QImageReader>

namespace anvil::app {
namespace {

constexpr int mostMegapixels = 250; // in memory a gigabyte

/// Where a place of the file, which is `size` before it is turned, lies on what is shown.
QTransform turnOf(QImageIOHandler::Transformations how, const QSize& size) {
    QTransform turn;
    if (how & QImageIOHandler::TransformationMirror) turn = turn * QTransform(-1, 0, 0, 1, size.width(), 0);
    if (how & QImageIOHandler::TransformationFlip) turn = turn * QTransform(1, 0, 0, -1, 0, size.height());
    if (how & QImageIOHandler::TransformationRotate90) // clockwise: (x, y) → (height − y, x)
        turn = turn * QTransform(0, 1, -1, 0, size.height(), 0);
    return turn;
}

} // namespace

Expected<Photo> photoFrom(const QByteArray& bytes) {
    QBuffer buffer;
    buffer.setData(bytes);
    QImageReader::setAllocationLimit(8 * mostMegapixels); // MB; some formats have eight bytes a pixel
    QImageReader reader(&buffer);
    reader.setAutoTransform(true);
    const auto size = reader.size();
    if (static_cast<qint64>(size.width()) * size.height() > mostMegapixels * qint64{1'000'000})
        return fail("it has more than 250 megapixels: make it smaller first");
    const auto turn = reader.transformation();
    const auto image = reader.read();
    if (image.isNull()) return fail("it is no picture that can be measured on");
    const bool aside = turn & QImageIOHandler::TransformationRotate90;
    return Photo(QPixmap::fromImage(image), turnOf(turn, aside ? image.size().transposed() : image.size()));
}

QPixmap smallPhoto(const QByteArray& bytes, int most) {
    QBuffer buffer;
    buffer.setData(bytes);
    QImageReader::setAllocationLimit(8 * mostMegapixels);
    QImageReader reader(&buffer);
    reader.setAutoTransform(true);
    const auto size = reader.size();
    if (static_cast<qint64>(size.width()) * size.height() > mostMegapixels * qint64{1'000'000}) return {};
    if (size.width() > most || size.height() > most)
        reader.setScaledSize(size.scaled(most, most, Qt::KeepAspectRatio).expandedTo({1, 1}));
    const auto image = reader.read();
    if (image.isNull()) return {};
    return QPixmap::fromImage(image.width() > most || image.height() > most
                                  ? image.scaled(most, most, Qt::KeepAspectRatio, Qt::SmoothTransformation)
                                  : image);
}

QStringList pictureEndings() {
    static const auto all = [] {
        QStringList out;
        const auto known = QImageReader::supportedImageFormats();
        for (const char* ending : {"png", "jpg", "jpeg", "webp", "bmp", "gif"})
            if (known.contains(ending)) out << QString::fromLatin1(ending);
        return out;
    }();
    return all;
}

} // namespace anvil::app
