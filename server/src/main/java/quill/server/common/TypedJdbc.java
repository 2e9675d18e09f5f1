package quill.server.common;

import java.util.Collection;
import java.util.function.Consumer;
import javax.sql.DataSource;
import org.joda.money.Money;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.PreparedStatementCreator;
import org.springframework.jdbc.core.PreparedStatementCreatorFactory;
import org.springframework.jdbc.core.PreparedStatementSetter;
import org.springframework.jdbc.core.ResultSetExtractor;
import org.springframework.jdbc.core.SqlProvider;
import org.springframework.jdbc.core.namedparam.NamedParameterJdbcTemplate;
import org.springframework.jdbc.core.namedparam.SqlParameterSource;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.KeyHolder;
import quill.core.acts.ActKey;
import quill.core.id.Id;

/** Statements take values of ours as they are: what JDBC takes of each is said here, and nowhere else. */
@Configuration(proxyBeanMethods = false)
class TypedJdbc {
    @Bean
    JdbcClient jdbcClient(JdbcTemplate template) {
        return JdbcClient.create(new NamedParameterJdbcTemplate(new Watched(template.getDataSource())) {
            @Override
            protected PreparedStatementCreator getPreparedStatementCreator(String sql, SqlParameterSource source) {
                return super.getPreparedStatementCreator(sql, new Typed(source));
            }

            @Override
            protected PreparedStatementCreator getPreparedStatementCreator(
                    String sql, SqlParameterSource source, Consumer<PreparedStatementCreatorFactory> customizer) {
                return super.getPreparedStatementCreator(sql, new Typed(source), customizer);
            }
        });
    }

    /** Every statement passes here, those with named parameters too. */
    private static final class Watched extends JdbcTemplate {
        private Watched(DataSource source) {
            super(source);
        }

        @Override
        public int update(PreparedStatementCreator creator) {
            watch(creator);
            return super.update(creator);
        }

        @Override
        public int update(PreparedStatementCreator creator, KeyHolder keys) {
            watch(creator);
            return super.update(creator, keys);
        }

        @Override
        public <T> T query(
                PreparedStatementCreator creator, PreparedStatementSetter setter, ResultSetExtractor<T> read) {
            watch(creator);
            return super.query(creator, setter, read);
        }

        private static void watch(PreparedStatementCreator creator) {
            if (creator instanceof SqlProvider provider) {
                ReadOnce.running(provider.getSql());
            }
        }
    }

    /** The word of a state, the name of any other constant, the number of an id, the text of a key, the minor units of an amount. */
    static Object forJdbc(Object value) {
        if (value instanceof StoredWord word) {
            return word.word();
        }
        if (value instanceof Enum<?> constant) {
            return constant.name();
        }
        if (value instanceof Id<?> id) {
            return id.value();
        }
        if (value instanceof ActKey key) {
            return key.toString();
        }
        if (value instanceof Money money) {
            return money.getAmountMinorLong();
        }
        return value instanceof Collection<?> several
                ? several.stream().map(TypedJdbc::forJdbc).toList()
                : value;
    }

    private record Typed(SqlParameterSource source) implements SqlParameterSource {
        @Override
        public boolean hasValue(String name) {
            return source.hasValue(name);
        }

        @Override
        public Object getValue(String name) {
            return forJdbc(source.getValue(name));
        }

        @Override
        public int getSqlType(String name) {
            return source.getSqlType(name);
        }

        @Override
        public String getTypeName(String name) {
            return source.getTypeName(name);
        }

        @Override
        public String[] getParameterNames() {
            return source.getParameterNames();
        }
    }
}
