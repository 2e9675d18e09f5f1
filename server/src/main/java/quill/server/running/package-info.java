/** That it stays up: the books opened and opened again, room on the disk, health, and a thread for each timed task. */
package quill.server.running;
