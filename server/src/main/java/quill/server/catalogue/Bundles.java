package quill.server.catalogue;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.core.RefusedException;
import quill.core.catalogue.TypedBundle;
import quill.server.common.ConflictException;

/** Tables BUNDLE and BUNDLE_PART. The caller opens the transaction. */
@Repository
class Bundles {
    private final JdbcClient jdbc;

    Bundles(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** One line of a bundle. */
    record Part(long item, BigDecimal quantity) {}

    /** Several lines kept together. */
    record Bundle(long id, String name, List<Part> parts, int version) {}

    List<Bundle> all() {
        Map<Long, List<Part>> parts = new LinkedHashMap<>();
        jdbc.sql("SELECT bundle_id, item_id, quantity FROM bundle_part ORDER BY bundle_id, place")
                .query(rs -> {
                    parts.computeIfAbsent(rs.getLong(1), i -> new ArrayList<>())
                            .add(new Part(rs.getLong(2), rs.getBigDecimal(3).stripTrailingZeros()));
                });
        return jdbc.sql("SELECT id, name, version FROM bundle ORDER BY LOWER(name), id")
                .query((rs, n) -> new Bundle(
                        rs.getLong(1), rs.getString(2), parts.getOrDefault(rs.getLong(1), List.of()), rs.getInt(3)))
                .list();
    }

    /** Keeps one. @param id 0 for a new one @throws ConflictException if another window changed it first */
    long keep(long id, int version, TypedBundle typed) {
        List<BigDecimal> quantities = typed.quantities();
        long bundle = id == 0 ? insert(typed.name().strip()) : id;
        if (id != 0
                && jdbc.sql(
                                        "UPDATE bundle SET name = :name, version = version + 1 WHERE id = :id AND version = :version")
                                .param("name", typed.name().strip())
                                .param("id", id)
                                .param("version", version)
                                .update()
                        != 1) {
            throw new ConflictException("This bundle was changed in another window. Look at it again.");
        }
        jdbc.sql("DELETE FROM bundle_part WHERE bundle_id = :id")
                .param("id", bundle)
                .update();
        for (int i = 0; i < quantities.size(); i++) {
            part(bundle, i, typed.parts().get(i).item(), quantities.get(i));
        }
        return bundle;
    }

    private void part(long bundle, int place, long item, BigDecimal quantity) {
        try {
            jdbc.sql("INSERT INTO bundle_part VALUES (:bundle, :place, :item, :quantity)")
                    .param("bundle", bundle)
                    .param("place", place)
                    .param("item", item)
                    .param("quantity", quantity)
                    .update();
        } catch (DataIntegrityViolationException e) {
            throw new RefusedException("parts[" + place + "].item", item, "is no item of the catalogue");
        }
    }

    private long insert(String name) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("INSERT INTO bundle (name) VALUES (:name)").param("name", name).update(key, "id");
        return key.getKey().longValue();
    }

    int delete(long id, int version) {
        return jdbc.sql("DELETE FROM bundle WHERE id = :id AND version = :version")
                .param("id", id)
                .param("version", version)
                .update();
    }
}
