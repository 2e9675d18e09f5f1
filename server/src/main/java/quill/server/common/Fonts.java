package quill.server.common;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.apache.fontbox.ttf.CmapLookup;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.pdfbox.io.RandomAccessReadBuffer;

/**
 * The fonts that papers are printed with: our own two, and behind them wide ones, so that a name stands as it is written.
 * The large one is read only where a text has a character that no other has.
 */
public final class Fonts {
    private static final Map<String, byte[]> FILES = new ConcurrentHashMap<>();
    private static final Map<String, CmapLookup> MAPS = new ConcurrentHashMap<>();

    private Fonts() {}

    /**
     * One font.
     *
     * @param family its name in style sheets
     * @param bold file of the bold weight; the regular one where it has none
     * @param large whether it is read only where it is needed
     */
    public record Font(String family, String regular, String bold, boolean large) {
        private boolean has(int character) {
            return MAPS.computeIfAbsent(regular, Fonts::map).getGlyphId(character) != 0;
        }
    }

    /** All of them; each list of families in the templates names every one, so that a character is found wherever it is. */
    public static final List<Font> ALL = List.of(
            font("Vollkorn", "Vollkorn"),
            font("Atkinson", "AtkinsonHyperlegibleNext"),
            font("Noto", "NotoSans"),
            font("NotoHebrew", "NotoSansHebrew"),
            font("NotoArabic", "NotoSansArabic"),
            new Font("NotoJp", "NotoSansJP_400Regular.ttf", "NotoSansJP_400Regular.ttf", true));

    private static Font font(String family, String file) {
        return new Font(family, file + "_400Regular.ttf", file + "_700Bold.ttf", false);
    }

    /** The fonts that a text needs: all small ones, and a large one where only that has a character of it. */
    public static List<Font> neededFor(String text) {
        return ALL.stream()
                .filter(f -> !f.large()
                        || text.codePoints()
                                .anyMatch(c ->
                                        isDrawn(c) && ALL.stream().noneMatch(o -> !o.large() && o.has(c)) && f.has(c)))
                .toList();
    }

    /** The characters of a text that no font has, each once; empty where it can be printed as it stands. */
    public static String missingFor(String text) {
        return text.codePoints()
                .filter(c -> isDrawn(c) && ALL.stream().noneMatch(f -> f.has(c)))
                .distinct()
                .mapToObj(Character::toString)
                .collect(Collectors.joining(" "));
    }

    /** What leaves a mark: no blanks, no marks of direction or joining. */
    private static boolean isDrawn(int character) {
        return !Character.isWhitespace(character)
                && !Character.isISOControl(character)
                && Character.getType(character) != Character.FORMAT
                && !isVariation(character);
    }

    private static boolean isVariation(int character) {
        return character >= 0xFE00 && character <= 0xFE0F || character >= 0xE0100 && character <= 0xE01EF;
    }

    /** A font's file. */
    public static InputStream open(String file) {
        return new ByteArrayInputStream(bytes(file));
    }

    private static byte[] bytes(String file) {
        return FILES.computeIfAbsent(file, f -> {
            try (InputStream in = Fonts.class.getResourceAsStream("/fonts/" + f)) {
                return in.readAllBytes();
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
    }

    private static CmapLookup map(String file) {
        try {
            return new TTFParser()
                    .parse(new RandomAccessReadBuffer(bytes(file)))
                    .getUnicodeCmapLookup();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
