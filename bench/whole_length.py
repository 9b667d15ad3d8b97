"""The offset of two WAVs by one FFT correlation of the whole length: float32, sizes that transform well."""
import sys
import numpy as np
from scipy import fft
from scipy.io import wavfile

rate, a = wavfile.read(sys.argv[1], mmap=True)
_, b = wavfile.read(sys.argv[2], mmap=True)
size = fft.next_fast_len(len(a) + len(b), real=True)
spectrum = fft.rfft(b.astype(np.float32), size)
spectrum *= np.conj(fft.rfft(a.astype(np.float32), size))
lags = fft.irfft(spectrum, size)
at = int(np.argmax(np.abs(lags)))
print(1000.0 * (at if at < len(b) else at - size) / rate)
