/** Which output a context plays on: the types of a page leave it out (Audio Output Devices). */
interface AudioContextOptions {
  /** '' is the computer's own choice. */
  sinkId?: string;
}
