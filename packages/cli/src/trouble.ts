/** The input is at fault; what could be made of it all the same goes to standard output. */
export class InputFault extends Error {
  constructor(
    message: string,
    readonly output = '',
  ) {
    super(message)
  }
}

/** The command is not used as it should be. */
export class Misuse extends Error {}
