package quill.server.catalogue;

import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.server.business.SafePicture;
import quill.server.common.Hashes;
import quill.server.common.NotFoundException;

/** Pictures by which an item is known again; never printed. Table ITEM_PICTURE, and which one an item has. */
@Service
class ItemPictures {
    private static final int WIDEST = 480;
    private static final int HIGHEST = 480;
    private final JdbcClient jdbc;

    ItemPictures(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** One of them as a PNG; empty where there is none of that hash. */
    Optional<byte[]> png(String hash) {
        return jdbc.sql("SELECT png FROM item_picture WHERE hash = :hash")
                .param("hash", hash)
                .query((rs, n) -> rs.getBytes(1))
                .optional();
    }

    /**
     * Gives an item a picture, instead of the one that it has.
     *
     * @throws RefusedException naming {@code file}
     * @throws NotFoundException if there is no such item
     */
    @Transactional
    void take(long item, byte[] file) {
        byte[] png = SafePicture.read(file, WIDEST, HIGHEST).png();
        String hash = Hashes.of(png);
        jdbc.sql("MERGE INTO item_picture (hash, png) KEY (hash) VALUES (:hash, :png)")
                .param("hash", hash)
                .param("png", png)
                .update();
        set(item, hash);
    }

    /** Leaves an item without one. @throws NotFoundException if there is no such item */
    @Transactional
    void takeOff(long item) {
        set(item, null);
    }

    private void set(long item, String hash) {
        int rows = jdbc.sql("UPDATE item SET picture = :hash WHERE id = :item")
                .param("hash", hash)
                .param("item", item)
                .update();
        if (rows != 1) {
            throw new NotFoundException("There is no item " + item + ".");
        }
        // One that no item has any more is of no use to anybody: it was never part of a document.
        jdbc.sql("DELETE FROM item_picture WHERE hash NOT IN (SELECT picture FROM item WHERE picture IS NOT NULL)")
                .update();
    }
}
