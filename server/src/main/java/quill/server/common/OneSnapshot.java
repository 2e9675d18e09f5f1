package quill.server.common;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;

/**
 * All that this reads is of one moment, whatever is written meanwhile. Of H2's levels only SERIALIZABLE does that: at
 * REPEATABLE READ the snapshot is taken table by table. For reading only; nothing is locked within it.
 */
@Target(ElementType.METHOD)
@Retention(RetentionPolicy.RUNTIME)
@Transactional(readOnly = true, isolation = Isolation.SERIALIZABLE)
public @interface OneSnapshot {}
