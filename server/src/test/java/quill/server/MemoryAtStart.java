package quill.server;

import com.github.benmanes.caffeine.cache.Cache;
import java.lang.reflect.Field;
import java.lang.reflect.Modifier;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.atomic.AtomicReference;
import org.springframework.aop.framework.Advised;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.mail.javamail.JavaMailSenderImpl;

/**
 * What the application's own objects knew when it had just started, and makes them know that again: caches, counters,
 * clocks, sessions. Found by looking, so that an object that keeps something new is emptied too.
 */
final class MemoryAtStart {
    private final List<Runnable> again = new ArrayList<>();
    private final Set<Object> seen = Collections.newSetFromMap(new IdentityHashMap<>());

    MemoryAtStart(ConfigurableApplicationContext context) {
        for (String name : context.getBeanFactory().getBeanDefinitionNames()) {
            if (context.getBeanFactory().isSingleton(name)) {
                look(context.getBean(name));
            }
        }
    }

    void putBack() {
        again.forEach(Runnable::run);
    }

    private void look(Object found) {
        Object object = behindProxy(found);
        if (object == null || object instanceof Enum || !isOurs(object) || !seen.add(object)) {
            return;
        }
        for (Class<?> type = object.getClass(); type != Object.class; type = type.getSuperclass()) {
            for (Field field : type.getDeclaredFields()) {
                if (!Modifier.isStatic(field.getModifiers()) && !field.getType().isSynthetic()) {
                    field.setAccessible(true);
                    keep(object, field);
                }
            }
        }
    }

    private static boolean isOurs(Object object) {
        return object.getClass().getName().startsWith("quill.") || object instanceof JavaMailSenderImpl;
    }

    private static Object behindProxy(Object bean) {
        try {
            return bean instanceof Advised proxy ? proxy.getTargetSource().getTarget() : bean;
        } catch (Exception e) {
            throw new IllegalStateException(e);
        }
    }

    private void keep(Object object, Field field) {
        Object value = get(object, field);
        if (!Modifier.isFinal(field.getModifiers())) {
            again.add(() -> set(object, field, value));
        }
        if (value instanceof Cache<?, ?> cache) {
            again.add(cache::invalidateAll);
        } else if (value instanceof Map<?, ?> map) {
            keepMap(map);
        } else if (value instanceof Collection<?> some) {
            keepCollection(some);
        } else if (value instanceof AtomicLong number) {
            long was = number.get();
            again.add(() -> number.set(was));
        } else if (value instanceof AtomicInteger number) {
            int was = number.get();
            again.add(() -> number.set(was));
        } else if (value instanceof AtomicBoolean said) {
            boolean was = said.get();
            again.add(() -> said.set(was));
        } else if (value instanceof AtomicReference<?> kept) {
            keepReference(kept);
        } else {
            look(value);
        }
    }

    private <T> void keepReference(AtomicReference<T> kept) {
        T was = kept.get();
        again.add(() -> kept.set(was));
    }

    private <K, V> void keepMap(Map<K, V> map) {
        Map<K, V> was = new LinkedHashMap<>(map);
        again.add(() -> {
            if (!map.keySet().equals(was.keySet())) {
                map.clear();
                map.putAll(was);
            }
        });
    }

    private <T> void keepCollection(Collection<T> some) {
        List<T> was = new ArrayList<>(some);
        again.add(() -> {
            if (some.size() != was.size()) {
                some.clear();
                some.addAll(was);
            }
        });
    }

    private static Object get(Object object, Field field) {
        try {
            return field.get(object);
        } catch (IllegalAccessException e) {
            throw new IllegalStateException(e);
        }
    }

    private static void set(Object object, Field field, Object value) {
        try {
            field.set(object, value);
        } catch (IllegalAccessException e) {
            throw new IllegalStateException(e);
        }
    }
}
