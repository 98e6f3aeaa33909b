// Node 20 lacks what the native library's higher calls are written with.
if (!('withResolvers' in Promise)) {
  Object.assign(Promise, {
    withResolvers<T>() {
      let resolve!: (value: T | PromiseLike<T>) => void
      let reject!: (reason?: unknown) => void
      const promise = new Promise<T>((yes, no) => {
        resolve = yes
        reject = no
      })
      return { promise, resolve, reject }
    },
  })
}
