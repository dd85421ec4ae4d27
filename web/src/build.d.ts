/** The version that is built, put in place of the name by the build. */
declare const __VERSION__: string;
