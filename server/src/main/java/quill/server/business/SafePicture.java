package quill.server.business;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Iterator;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import org.apache.batik.transcoder.TranscoderException;
import org.apache.batik.transcoder.TranscoderInput;
import org.apache.batik.transcoder.TranscoderOutput;
import org.apache.batik.transcoder.image.PNGTranscoder;
import quill.core.RefusedException;

/**
 * A picture as it is shown or printed: whatever was brought along, drawn anew as a PNG of a size that is of use. Of an SVG
 * only the drawing is left: its scripts are never run, and nothing outside of it is fetched.
 *
 * @param png its bytes
 */
public record SafePicture(byte[] png, int width, int height) {
    static final int MOST_BYTES = 2 * 1024 * 1024;
    /** Above this a picture is a photograph, and would take more memory than it is worth. */
    private static final long MOST_PIXELS = 12_000_000;

    /** Reads a PNG, JPEG or SVG, fitted into a box of pixels. @throws RefusedException naming {@code file}, with what would be allowed */
    public static SafePicture read(byte[] file, int widest, int highest) {
        if (file.length == 0 || file.length > MOST_BYTES) {
            throw refused("a picture has at most 2 MB");
        }
        return fitted(isSvg(file) ? drawn(file, widest, highest) : picture(file), widest, highest);
    }

    private static RefusedException refused(String why) {
        return new RefusedException("file", "", why);
    }

    private static boolean isSvg(byte[] file) {
        String head = new String(file, 0, Math.min(file.length, 1024), StandardCharsets.UTF_8);
        return head.contains("<svg") || head.stripLeading().startsWith("<?xml");
    }

    private static BufferedImage picture(byte[] file) {
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(file))) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) {
                throw refused("this is no PNG, JPEG or SVG");
            }
            ImageReader reader = readers.next();
            try {
                reader.setInput(in, true, true);
                long pixels = (long) reader.getWidth(0) * reader.getHeight(0);
                if (pixels > MOST_PIXELS) {
                    throw refused("this has " + pixels / 1_000_000 + " million pixels; at most 12 million are taken");
                }
                return reader.read(0);
            } finally {
                reader.dispose();
            }
        } catch (IOException | IllegalArgumentException e) {
            throw refused("this picture cannot be read; save it anew as PNG");
        }
    }

    private static BufferedImage drawn(byte[] file, int widest, int highest) {
        String svg = new String(file, StandardCharsets.UTF_8);
        if (svg.contains("<!DOCTYPE") || svg.contains("<!ENTITY")) {
            throw refused("an SVG with definitions of its own (DOCTYPE) is not taken; save it as plain SVG");
        }
        PNGTranscoder transcoder = new PNGTranscoder();
        transcoder.addTranscodingHint(PNGTranscoder.KEY_WIDTH, (float) widest);
        transcoder.addTranscodingHint(PNGTranscoder.KEY_MAX_HEIGHT, (float) highest);
        transcoder.addTranscodingHint(PNGTranscoder.KEY_EXECUTE_ONLOAD, false);
        transcoder.addTranscodingHint(PNGTranscoder.KEY_ALLOWED_SCRIPT_TYPES, "");
        transcoder.addTranscodingHint(PNGTranscoder.KEY_CONSTRAIN_SCRIPT_ORIGIN, true);
        transcoder.addTranscodingHint(PNGTranscoder.KEY_ALLOW_EXTERNAL_RESOURCES, false);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            transcoder.transcode(new TranscoderInput(new StringReader(svg)), new TranscoderOutput(out));
            return ImageIO.read(new ByteArrayInputStream(out.toByteArray()));
        } catch (TranscoderException | IOException | RuntimeException e) {
            throw refused("this SVG cannot be drawn; it may name something outside of itself");
        }
    }

    private static SafePicture fitted(BufferedImage image, int widest, int highest) {
        double scale = Math.min(1, Math.min((double) widest / image.getWidth(), (double) highest / image.getHeight()));
        int width = Math.max(1, (int) Math.round(image.getWidth() * scale));
        int height = Math.max(1, (int) Math.round(image.getHeight() * scale));
        BufferedImage fitted = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D graphics = fitted.createGraphics();
        // On paper whatever is clear is white.
        graphics.setColor(Color.WHITE);
        graphics.fillRect(0, 0, width, height);
        graphics.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BICUBIC);
        graphics.drawImage(image, 0, 0, width, height, null);
        graphics.dispose();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ImageIO.write(fitted, "png", out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return new SafePicture(out.toByteArray(), width, height);
    }
}
