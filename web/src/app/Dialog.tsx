import { Modal, type ModalProps } from 'antd';
import { useRef, type ReactNode } from 'react';
import { TICKED } from './keys.js';

const FIELD = 'input:not([disabled]):not([type=hidden]):not([type=radio]):not([type=checkbox]), textarea:not([disabled])';

/** A dialog that puts the hand in its first field, or on its button, and takes Enter in a field of one line as that button. */
export function Dialog({ children, afterOpenChange, ...props }: ModalProps): ReactNode {
  const body = useRef<HTMLDivElement>(null);
  const button = (): HTMLButtonElement | null =>
    body.current?.closest('.ant-modal')?.querySelector<HTMLButtonElement>('.ant-modal-footer .ant-btn-primary:not([disabled])') ?? null;
  return (
    <Modal
      {...props}
      afterOpenChange={(open) => {
        if (open) (body.current?.querySelector<HTMLElement>(FIELD) ?? button())?.focus();
        afterOpenChange?.(open);
      }}
    >
      <div
        ref={body}
        onKeyDown={(e) => {
          const at = e.target as HTMLElement;
          if (
            e.key !== 'Enter' ||
            e.nativeEvent.isComposing ||
            e.defaultPrevented ||
            !(at instanceof HTMLInputElement) ||
            TICKED.has(at.type) ||
            at.closest('.ant-select, form')
          )
            return;
          e.preventDefault();
          button()?.click();
        }}
      >
        {children}
      </div>
    </Modal>
  );
}
