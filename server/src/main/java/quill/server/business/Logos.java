package quill.server.business;

import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.server.common.Hashes;

/** Table LOGO: every one that was ever printed, by its hash; what was issued keeps the one that it was issued with. */
@Service
public class Logos {
    private static final int WIDEST_MM = 60;
    private static final int HIGHEST_MM = 16;
    private static final int WIDEST_PIXELS = 1200;
    private static final int HIGHEST_PIXELS = 600;
    private final JdbcClient jdbc;

    Logos(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** The business's logo now, by its hash; empty where it has none. */
    public String now() {
        return jdbc.sql("SELECT logo FROM business WHERE id = 1")
                .query((rs, n) -> Optional.ofNullable(rs.getString(1)))
                .optional()
                .flatMap(l -> l)
                .orElse("");
    }

    /** One of them as a PNG; empty where there is none of that hash. */
    public Optional<byte[]> png(String hash) {
        return jdbc.sql("SELECT png FROM logo WHERE hash = :hash")
                .param("hash", hash)
                .query((rs, n) -> rs.getBytes(1))
                .optional();
    }

    /** How large it is on paper: within a box of 60 by 16 mm, as a style. */
    public String sizeOnPaper(String hash) {
        return jdbc.sql("SELECT width, height FROM logo WHERE hash = :hash")
                .param("hash", hash)
                .query((rs, n) -> rs.getInt(1) * HIGHEST_MM > rs.getInt(2) * WIDEST_MM
                        ? "width: " + WIDEST_MM + "mm"
                        : "height: " + HIGHEST_MM + "mm")
                .optional()
                .orElse("");
    }

    /** Takes a PNG, JPEG or SVG as the logo from now on. @return its hash */
    @Transactional
    String take(byte[] file) {
        SafePicture logo = SafePicture.read(file, WIDEST_PIXELS, HIGHEST_PIXELS);
        String hash = Hashes.of(logo.png());
        if (png(hash).isEmpty()) {
            jdbc.sql("INSERT INTO logo (hash, png, width, height) VALUES (:hash, :png, :width, :height)")
                    .param("hash", hash)
                    .param("png", logo.png())
                    .param("width", logo.width())
                    .param("height", logo.height())
                    .update();
        }
        jdbc.sql("UPDATE business SET logo = :hash WHERE id = 1")
                .param("hash", hash)
                .update();
        return hash;
    }

    /** Prints none from now on. */
    @Transactional
    void takeOff() {
        jdbc.sql("UPDATE business SET logo = NULL WHERE id = 1").update();
    }
}
